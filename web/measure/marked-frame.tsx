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
/** What is less than this is rounding: a hundredth of a window moved by a whole window. */
const JUMPS_FROM = 0.01;

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
  const isJumping = (measure?.shift ?? 0) >= JUMPS_FROM;
  const percent = Math.round(scale * 100);
  return (
    <figure className="flex-none" style={{ width: shown, margin: 0 }}>
      <figcaption className="mb-1.5">
        <h2 className="text-lg">{title}</h2>
        <p className="truncate text-sm text-soft">{about}</p>
        {isJumping ? <p className="text-sm text-due">The text jumps while it loads.</p> : null}
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
        {placed(marks, measure, scale).map(({ number, isPressing, block, top, left }) => (
          <button
            key={`${number} ${block}`}
            type="button"
            className="absolute z-2 h-6 min-w-6 bg-paper-ink px-1 text-center font-sans text-sm leading-6 font-semibold text-white aria-pressed:outline-2 aria-pressed:outline-offset-2 aria-pressed:outline-measure data-[pressing=true]:bg-measure"
            data-pressing={isPressing}
            aria-pressed={number === chosen}
            aria-label={`${markName} ${number} in ${title.toLowerCase()}`}
            style={{ left, top }}
            onClick={() => onChoose(number)}
          >
            {number}
          </button>
        ))}
      </div>
    </figure>
  );
}

/** A mark with its place in px as it is shown. */
interface Placed extends FrameMark {
  readonly top: number;
  readonly left: number;
}

/** Marks beside what they are about; where several would lie on each other, each stands at the right of those before it. */
function placed(marks: readonly FrameMark[], measure: Measure | null, scale: number): readonly Placed[] {
  const standing: Placed[] = [];
  for (const mark of marks) {
    const box = measure?.blocks.find(({ id }) => id === mark.block);
    if (!box) continue;
    // In whole px: a step to the right that is rounded would lead to where it was.
    const top = Math.max(0, Math.round(box.top * scale) - 4);
    let left = Math.max(-8, Math.round(box.left * scale) - 8);
    for (let other = inTheWay(standing, left, top); other; other = inTheWay(standing, left, top))
      left = other.left + MARK_PX;
    standing.push({ ...mark, top, left });
  }
  return standing;
}

const inTheWay = (standing: readonly Placed[], left: number, top: number): Placed | undefined =>
  standing.find((other) => Math.abs(other.left - left) < MARK_PX && Math.abs(other.top - top) < MARK_PX);
