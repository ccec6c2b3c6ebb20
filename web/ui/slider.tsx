import { Slider as Radix } from 'radix-ui';
import { cx } from './cx.ts';
import { useIsDisabled } from './field-set.tsx';

interface SliderProps {
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  /** While it is moved. */
  readonly onChange: (value: number) => void;
  /** When it is let go of. */
  readonly onSettle?: (value: number) => void;
  readonly disabled?: boolean;
  /** What it measures, or what still needs a hand. */
  readonly tone?: 'ink' | 'due';
  readonly 'aria-label': string;
  readonly 'aria-valuetext'?: string;
  readonly className?: string;
}

/** A value along a line; arrows, Home, End and the page keys move it. */
export function Slider({
  value,
  onChange,
  onSettle,
  tone = 'ink',
  disabled = false,
  className,
  'aria-label': name,
  'aria-valuetext': says,
  ...rest
}: SliderProps) {
  const isAround = useIsDisabled();
  return (
    <Radix.Root
      value={[value]}
      disabled={disabled || isAround}
      onValueChange={([next]) => next !== undefined && onChange(next)}
      // Radix tells that it was let go of before it tells where to.
      onValueCommit={([next]) => queueMicrotask(() => next !== undefined && onSettle?.(next))}
      className={cx(
        'relative flex h-5 w-full touch-none items-center select-none data-disabled:opacity-55',
        className,
      )}
      {...rest}
    >
      <Radix.Track className="relative h-1 grow rounded-xs bg-control">
        <Radix.Range
          className={cx(
            'absolute h-full rounded-xs forced-colors:bg-[Highlight]',
            tone === 'ink' ? 'bg-ink' : 'bg-due',
          )}
        />
      </Radix.Track>
      <Radix.Thumb
        aria-label={name}
        {...(says ? { 'aria-valuetext': says } : {})}
        className={cx(
          'block h-4.5 w-2.5 cursor-ew-resize rounded-xs border border-panel data-disabled:cursor-not-allowed forced-colors:bg-[ButtonText]',
          tone === 'ink' ? 'bg-ink' : 'bg-due',
        )}
      />
    </Radix.Root>
  );
}
