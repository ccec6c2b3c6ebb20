import { cx } from '../ui/cx.ts';

const TICK_PX = 50;
const LONG_PX = 200;

/** A ruler in px whose zero is at `start` px from its left edge; `length` is what it measures. */
export function Ruler({ start, length }: { readonly start: number; readonly length: number }) {
  const ticks = Array.from({ length: Math.floor(length / TICK_PX) + 1 }, (_, at) => at * TICK_PX);
  const ends = ticks.includes(length) ? ticks : [...ticks, length];
  const isLong = (px: number) => px % LONG_PX === 0 || px === length;
  return (
    <div
      className="relative h-6 overflow-hidden border-b border-ink font-mono text-tick leading-none text-soft"
      aria-hidden="true"
    >
      {ends.map((px) => (
        <i
          key={px}
          className={cx('absolute bottom-0 w-px bg-current', isLong(px) ? 'h-6' : 'h-1.5')}
          style={{ left: start + px }}
        />
      ))}
      {ends
        .filter(isLong)
        .filter((px) => px === length || length - px > 40)
        .map((px) => (
          <b key={px} className="absolute top-0.75 pl-1 font-normal" style={{ left: start + px }}>
            {px}
          </b>
        ))}
    </div>
  );
}
