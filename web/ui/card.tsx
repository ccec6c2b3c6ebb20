import type { HTMLAttributes } from 'react';
import { cx } from './cx.ts';

interface CardProps extends HTMLAttributes<HTMLElement> {
  readonly as?: 'section' | 'div' | 'article';
}

/** What belongs together, under the heavy top edge of a label. */
export function Card({ as: Tag = 'section', className, ...rest }: CardProps) {
  return <Tag className={cx('border-t-7 border-ink bg-panel shadow-card', className)} {...rest} />;
}
