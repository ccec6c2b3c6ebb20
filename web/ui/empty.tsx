import type { HTMLAttributes } from 'react';
import { cx } from './cx.ts';

interface EmptyProps extends HTMLAttributes<HTMLElement> {
  readonly as?: 'p' | 'div';
  /** What is not there, or what was not possible. */
  readonly title?: string;
  readonly level?: 1 | 2;
}

/** An area with nothing in it: what it is for, and what to do first. */
export function Empty({ as: Tag = 'div', title, level = 2, className, children, ...rest }: EmptyProps) {
  const Title = `h${level}` as const;
  return (
    <Tag className={cx('max-w-[46ch] p-7 text-soft', className)} {...rest}>
      {title ? <Title className="mb-1 text-xl text-ink">{title}</Title> : null}
      {children}
    </Tag>
  );
}
