import './measure.css';

const TICK_PX = 50;
const LONG_PX = 200;

/** A ruler in px whose zero is at `start` px from its left edge; `length` is what it measures. */
export function Ruler({ start, length }: { readonly start: number; readonly length: number }) {
  const ticks = Array.from({ length: Math.floor(length / TICK_PX) + 1 }, (_, at) => at * TICK_PX);
  const ends = ticks.includes(length) ? ticks : [...ticks, length];
  return (
    <div className="ruler" aria-hidden="true">
      {ends.map((px) => (
        <i
          key={px}
          className="ruler-tick"
          data-long={px % LONG_PX === 0 || px === length}
          style={{ left: start + px }}
        />
      ))}
      {ends
        .filter((px) => px % LONG_PX === 0 || px === length)
        .filter((px) => px === length || length - px > 40)
        .map((px) => (
          <b key={px} className="ruler-figure" style={{ left: start + px }}>
            {px}
          </b>
        ))}
    </div>
  );
}
