import { useState } from 'react';
import type { WrittenSample } from '#api/likeness.ts';
import { Chips } from '../ui/chips.tsx';

const SCALES = [1, 2] as const;

/** The place of a cut that looks least alike, as it is written and untouched, pixel by pixel. */
export function LikenessDetail({ sample }: { readonly sample: WrittenSample }) {
  const [scale, setScale] = useState<(typeof SCALES)[number]>(1);
  const shown = [
    ['As written', sample.detail],
    ['Untouched', sample.untouched],
  ] as const;
  return (
    <section
      className="grid min-h-0 min-w-0 flex-1 place-items-center content-center gap-2.5 overflow-hidden bg-stage text-white"
      aria-label="Where it is least alike"
    >
      <p className="flex items-center gap-3 bg-stage-plate px-2 py-0.75">
        Least alike here: {sample.worst.likeness.toFixed(3)}
        <Chips
          about="Scale"
          pressed={[String(scale)]}
          choices={SCALES.map((one) => [String(one), `${one}:1`] as const)}
          onPress={(chosen) => setScale(SCALES.find((one) => String(one) === chosen) ?? 1)}
        />
      </p>
      <div className="flex flex-wrap justify-center gap-3">
        {shown.map(([says, address]) => (
          <figure key={says}>
            <div className="h-57.5 w-85 max-w-[42vw] overflow-hidden">
              <img
                className="[image-rendering:pixelated]"
                src={address}
                alt={`${says}, ${scale} to 1`}
                style={{ scale: String(scale) }}
              />
            </div>
            <figcaption className="mt-1 w-fit bg-stage-plate px-1.5 py-px">{says}</figcaption>
          </figure>
        ))}
      </div>
    </section>
  );
}
