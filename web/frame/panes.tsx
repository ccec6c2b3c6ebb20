import type { HTMLAttributes, ReactNode } from 'react';
import { cx } from '../ui/cx.ts';

/** The rows of a screen: a question or a head, the panes side by side, and what comes in at the foot. */
export const PANES_LOOK = 'grid h-full grid-cols-1 grid-rows-[auto_minmax(0,1fr)_auto]';

export function HeadPane({ className, ...rest }: HTMLAttributes<HTMLElement>) {
  return (
    <section
      className={cx('col-span-full border-b border-line bg-panel px-4.5 pt-3.5 pb-2.5', className)}
      {...rest}
    />
  );
}

/** At the right: the label, or what is said of what is chosen. */
export function SidePane({ className, ...rest }: HTMLAttributes<HTMLElement>) {
  return <aside className={cx('overflow-auto p-3.5 max-narrow:p-2.5', className)} {...rest} />;
}

export function FootPane({ children }: { readonly children: ReactNode }) {
  return <div className="col-span-full min-w-0">{children}</div>;
}
