import { type ReactNode, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import { sayUsedOn } from '../pieces/say-used-on.ts';
import { OneOf } from '../ui/chips.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Panel } from '../ui/panel.tsx';

/** What is compared with the shelf: a result that is not taken yet, or a piece. Sizes in px, 0 where not known. */
interface Compared {
  readonly title: string;
  readonly look: string;
  readonly width: number;
  readonly height: number;
  readonly maker: string;
}

interface CompareProps {
  readonly fresh: Compared;
  /** What the two are called where they differ, such as "The new one" and "The one on the shelf". */
  readonly names: readonly [fresh: string, held: string];
  readonly held: readonly Asset[];
  /** What can be done about the pair, under what differs. */
  readonly deeds?: (held: Asset) => ReactNode;
  readonly onClose: () => void;
}

/** Two pictures side by side with what differs: size, shape, maker, licence, use. */
export function Compare({ fresh, names, held, deeds, onClose }: CompareProps) {
  const [at, setAt] = useState(0);
  const other = held[at];
  if (!other) return null;
  return (
    <Panel
      title="Do these show the same?"
      about="They look alike to the computer. Whether they are the same is for you to see."
      isOpen
      onClose={onClose}
    >
      <div className="mt-3 mb-2 grid grid-cols-2 gap-3">
        <figure>
          <img className="max-h-[42vh] w-full bg-stage object-contain" src={fresh.look} alt={fresh.title} />
          <figcaption className="mt-1.25 font-semibold">
            {fresh.title} <span className="text-soft">{names[0].toLowerCase()}</span>
          </figcaption>
        </figure>
        <figure>
          <img
            className="max-h-[42vh] w-full bg-stage object-contain"
            src={other.view}
            alt={other.label.title || other.stem}
          />
          <figcaption className="mt-1.25 font-semibold">
            {other.label.title || other.stem} <span className="text-soft">{names[1].toLowerCase()}</span>
          </figcaption>
        </figure>
      </div>
      <ul className="mb-3 list-disc pl-4.5">
        {differences(fresh, other, names).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      {held.length > 1 ? (
        <OneOf
          about="Compare with"
          value={String(at)}
          choices={held.map((asset, index) => [String(index), asset.stem] as const)}
          onChoose={(index) => setAt(Number(index))}
        />
      ) : null}
      {deeds ? <Deeds>{deeds(other)}</Deeds> : null}
    </Panel>
  );
}

function differences(
  fresh: Compared,
  held: Asset,
  names: readonly [fresh: string, held: string],
): readonly string[] {
  const lines: string[] = [];
  if (fresh.width > 0) {
    const times = fresh.width / held.width;
    lines.push(
      Math.abs(times - 1) < 0.01
        ? `Both are ${held.width} px wide.`
        : `${times > 1 ? names[0] : names[1]} is larger: ${fresh.width} × ${fresh.height} against ${held.width} × ${held.height} px.`,
    );
    const shape = fresh.width / fresh.height / (held.width / held.height);
    lines.push(
      Math.abs(shape - 1) < 0.01
        ? 'Both have the same shape.'
        : 'One shows more of the picture: their shapes differ.',
    );
  }
  const makers = [fresh.maker, held.label.creator].map((maker) => maker || 'nobody that is named');
  lines.push(makers[0] === makers[1] ? `Both are by ${makers[0]}.` : `By ${makers[0]}, and by ${makers[1]}.`);
  lines.push(`${names[1]}: ${termsOf(held.label).name}, ${sayUsedOn(held)}.`);
  return lines;
}
