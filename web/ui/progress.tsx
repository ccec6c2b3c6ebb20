import { Progress as Radix } from 'radix-ui';
import { cx } from './cx.ts';

/** What is drawn while nobody knows how far it is. */
const UNKNOWN_PERCENT = 30;

interface ProgressProps {
  /** What goes on. */
  readonly name: string;
  /** In percent, 0 to 100; null while nobody knows. */
  readonly value: number | null;
  /** On the dark bar at the top. */
  readonly onBar?: boolean;
  readonly className?: string;
}

/** How far long work has come. */
export function Progress({ name, value, onBar = false, className }: ProgressProps) {
  const percent = value === null ? null : Math.round(Math.min(100, Math.max(0, value)));
  return (
    <Radix.Root
      value={percent}
      aria-label={name}
      className={cx('block h-1.25', onBar ? 'bg-bar-line' : 'bg-hairline', className)}
    >
      <Radix.Indicator
        className={cx('block h-full forced-colors:bg-[Highlight]', onBar ? 'bg-bar-ink' : 'bg-action')}
        style={{ width: `${percent ?? UNKNOWN_PERCENT}%` }}
      />
    </Radix.Root>
  );
}
