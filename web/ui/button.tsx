import type { ButtonHTMLAttributes } from 'react';

type Kind = 'plain' | 'action' | 'quiet' | 'link';

export function Button({
  kind = 'plain',
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: Kind }) {
  return <button type={type} className={`button ${className}`} data-kind={kind} {...rest} />;
}
