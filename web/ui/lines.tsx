import type { HTMLAttributes, ReactNode } from 'react';
import { cx } from './cx.ts';

/** Things one under the other, a hairline between them, each with what can be done about it at its right. */
export function Lines({
  className,
  children,
}: {
  readonly className?: string;
  readonly children: ReactNode;
}) {
  return <ul className={cx('mt-2.5 mb-3.5', className)}>{children}</ul>;
}

interface LineProps extends HTMLAttributes<HTMLLIElement> {
  readonly says: ReactNode;
}

export function Line({ says, className, children, ...rest }: LineProps) {
  return (
    <li
      className={cx(
        'flex flex-wrap items-center justify-between gap-x-3 gap-y-1 border-t border-hairline py-1.25',
        className,
      )}
      {...rest}
    >
      <div className="min-w-0 flex-1 wrap-anywhere">{says}</div>
      {children}
    </li>
  );
}
