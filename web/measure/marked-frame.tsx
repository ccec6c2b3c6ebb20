import { useRef } from 'react';
import { Dimension } from './dimension.tsx';
import { type Measure, useMeasure } from './told.ts';

/** Something that is numbered, and where it shows in this frame (`data-block`). */
export interface FrameMark {
  readonly number: number;
  readonly isPressing: boolean;
  readonly block: string;
}

interface MarkedFrameProps {
  readonly title: string;
  readonly about: string;
  readonly address: string;
  /** Width in px of the window that it is laid out for, and at which it is shown here. */
  readonly viewport: number;
  readonly shown: number;
  readonly marks: readonly FrameMark[];
  /** What a mark is, in a word. */
  readonly markName: string;
  readonly chosen: number | null;
  readonly onChoose: (number: number) => void;
}

const LEAST_HEIGHT_PX = 480;
const MOST_HEIGHT_PX = 30_000;
const MARK_PX = 26;

/** A state of a page in a real frame of its own width, scaled down, with numbers beside what they are about. */
export function MarkedFrame({
  title,
  about,
  address,
  viewport,
  shown,
  marks,
  markName,
  chosen,
  onChoose,
}: MarkedFrameProps) {
  const frame = useRef<HTMLIFrameElement>(null);
  const measure = useMeasure(frame);
  const scale = shown / viewport;
  const height = Math.min(MOST_HEIGHT_PX, Math.max(measure?.height ?? 0, LEAST_HEIGHT_PX / scale));
  const percent = Math.round(scale * 100);
  return (
    <figure className="flex-none" style={{ width: shown, margin: 0 }}>
      <figcaption className="mb-1.5">
        <h2 className="text-lg">{title}</h2>
        <p className="truncate text-sm text-soft">{about}</p>
      </figcaption>
      <div className="relative h-5">
        <Dimension
          tone="soft"
          ground="bg-ground"
          axis="x"
          words={percent < 100 ? `${viewport} px, shown at ${percent}%` : `${viewport} px`}
          style={{ inset: '2px 0 auto 0' }}
        />
      </div>
      <div className="relative bg-white shadow-card" style={{ width: shown, height: height * scale }}>
        <iframe
          className="origin-top-left bg-white"
          ref={frame}
          src={address}
          title={`${title} at ${viewport} px`}
          sandbox="allow-scripts"
          style={{ width: viewport, height, transform: `scale(${scale})` }}
        />
        {placed(marks, measure).map(({ number, isPressing, top, left, before }) => (
          <button
            key={number}
            type="button"
            className="absolute z-2 h-6 min-w-6 bg-paper-ink px-1 text-center font-sans text-sm leading-6 font-semibold text-white aria-pressed:outline-2 aria-pressed:outline-offset-2 aria-pressed:outline-measure data-[pressing=true]:bg-measure"
            data-pressing={isPressing}
            aria-pressed={number === chosen}
            aria-label={`${markName} ${number} in ${title.toLowerCase()}`}
            style={{
              left: Math.max(-8, left * scale - 8) + before * MARK_PX,
              top: Math.max(0, top * scale - 4),
            }}
            onClick={() => onChoose(number)}
          >
            {number}
          </button>
        ))}
      </div>
    </figure>
  );
}

interface Placed extends FrameMark {
  readonly top: number;
  readonly left: number;
  /** How many marks stand before it at the same place. */
  readonly before: number;
}

function placed(marks: readonly FrameMark[], measure: Measure | null): readonly Placed[] {
  const counts = new Map<string, number>();
  return marks.flatMap((mark) => {
    const box = measure?.blocks.find(({ id }) => id === mark.block);
    if (!box) return [];
    const before = counts.get(mark.block) ?? 0;
    counts.set(mark.block, before + 1);
    return [{ ...mark, top: box.top, left: box.left, before }];
  });
}
