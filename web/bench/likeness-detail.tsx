import { useState } from 'react';
import type { LikenessSample } from '#api/likeness.ts';

const SCALES = [1, 2] as const;

/** The place of a cut that looks least alike, as it is written and untouched, pixel by pixel. */
export function LikenessDetail({ sample }: { readonly sample: LikenessSample }) {
  const [scale, setScale] = useState<(typeof SCALES)[number]>(1);
  const shown = [
    ['As written', sample.detail],
    ['Untouched', sample.untouched],
  ] as const;
  return (
    <section className="stage likeness-detail" aria-label="Where it is least alike">
      <p>
        Least alike here: {sample.worst.likeness.toFixed(3)}
        <span className="chips">
          {SCALES.map((one) => (
            <button
              key={one}
              type="button"
              className="chip"
              aria-pressed={scale === one}
              onClick={() => setScale(one)}
            >
              {one}:1
            </button>
          ))}
        </span>
      </p>
      <div className="likeness-pair">
        {shown.map(([says, address]) => (
          <figure key={says}>
            <div className="likeness-pixels">
              <img src={address} alt={`${says}, ${scale} to 1`} style={{ scale: String(scale) }} />
            </div>
            <figcaption>{says}</figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}
