import type { ReactNode } from 'react';
import { cx } from './cx.ts';

/** Under what is said: the buttons for what can be done about it. */
export function Deeds({
  className,
  children,
}: {
  readonly className?: string;
  readonly children: ReactNode;
}) {
  return <div className={cx('mt-4 flex flex-wrap gap-2', className)}>{children}</div>;
}
