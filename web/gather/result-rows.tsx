import { type KeyboardEvent, type MouseEvent, useRef, useState } from 'react';
import { trueShapeRows } from '#core/media/rows.ts';
import { cx } from '../ui/cx.ts';
import { useWidth } from '../ui/use-width.ts';

/** A picture in a row, whether it is found somewhere or held already. Sizes in px, 0 where not known. */
export interface RowPicture {
  readonly id: string;
  readonly look: string;
  readonly title: string;
  readonly width: number;
  readonly height: number;
  /** What stands under the title: size and what it may be used for. */
  readonly note: string;
  readonly isDue: boolean;
}

interface ResultRowsProps {
  readonly name: string;
  readonly pictures: readonly RowPicture[];
  readonly openId: string | null;
  readonly chosen: ReadonlySet<string>;
  readonly onOpen: (id: string) => void;
  readonly onChoose: (id: string) => void;
  readonly onTake: (id: string) => void;
}

const LEAST_WIDTH_PX = 200;
const ROW_PX = 118;
const GAP_PX = 10;
const LEAST_ASPECT = 0.5;
const MOST_ASPECT = 2.6;
/** The shape that stands in until a picture has come, where its size was not said. */
const GUESSED_ASPECT = 1.5;

/** Pictures by their true shapes. Arrow keys walk, Space chooses, Enter takes. */
export function ResultRows(props: ResultRowsProps) {
  const { name, pictures, openId, chosen, onOpen, onChoose, onTake } = props;
  const box = useRef<HTMLDivElement>(null);
  const width = Math.max(LEAST_WIDTH_PX, useWidth(box));
  const [seen, setSeen] = useState<ReadonlyMap<string, number>>(new Map());
  const aspects = pictures.map((picture) => aspectOf(picture, seen));
  const rows = trueShapeRows(aspects, width, ROW_PX, GAP_PX);
  const numbers = new Map([...chosen].map((id, at) => [id, at + 1]));
  const press = (event: MouseEvent, id: string) => {
    if (event.ctrlKey || event.metaKey || event.shiftKey) onChoose(id);
    else onOpen(id);
  };
  const walk = (event: KeyboardEvent<HTMLDivElement>) => {
    const id = document.activeElement instanceof HTMLElement ? document.activeElement.dataset.result : null;
    if (!id) return;
    const step = STEPS[event.key];
    if (step !== undefined) {
      const buttons = [...document.querySelectorAll<HTMLElement>('[data-result]')];
      const at = buttons.findIndex((button) => button.dataset.result === id);
      const next = buttons[at + step];
      event.preventDefault();
      next?.focus();
      next?.click();
    } else if (event.key === ' ') {
      event.preventDefault();
      onChoose(id);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      onTake(id);
    }
  };
  return (
    <div
      ref={box}
      role="listbox"
      aria-label={name}
      aria-multiselectable="true"
      className="outline-none"
      onKeyDown={walk}
      tabIndex={-1}
    >
      {rows.map((row) => (
        <div key={pictures[row.from]?.id} className="mb-2.25 flex items-start gap-2.5" role="presentation">
          {pictures.slice(row.from, row.to).map((picture, at) => (
            <button
              key={picture.id}
              type="button"
              role="option"
              aria-selected={picture.id === openId || chosen.has(picture.id)}
              className="relative flex-none text-left"
              data-result={picture.id}
              style={{ width: (aspects[row.from + at] ?? GUESSED_ASPECT) * row.height }}
              onClick={(event) => press(event, picture.id)}
              onDoubleClick={() => onTake(picture.id)}
            >
              <img
                className={cx(
                  'w-full bg-hairline object-cover',
                  (picture.id === openId || chosen.has(picture.id)) && 'outline-3 outline-due',
                )}
                src={picture.look}
                alt=""
                style={{ height: row.height }}
                loading="lazy"
                decoding="async"
                onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) => {
                  if (picture.width > 0 || naturalHeight === 0) return;
                  setSeen((known) => new Map(known).set(picture.id, naturalWidth / naturalHeight));
                }}
              />
              {numbers.has(picture.id) ? (
                <i className="absolute top-0 left-0 min-w-5 bg-measure px-1.5 py-px font-sans text-2xs leading-4.5 font-semibold text-white not-italic">
                  {numbers.get(picture.id)}
                </i>
              ) : null}
              <span className="mt-1.25 line-clamp-2 text-sm leading-3.75 font-semibold">{picture.title}</span>
              <span
                className={cx('line-clamp-2 text-sm leading-3.75', picture.isDue ? 'text-due' : 'text-soft')}
              >
                {picture.note}
              </span>
            </button>
          ))}
        </div>
      ))}
    </div>
  );
}

const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

function aspectOf({ id, width, height }: RowPicture, seen: ReadonlyMap<string, number>): number {
  const aspect = width > 0 && height > 0 ? width / height : (seen.get(id) ?? GUESSED_ASPECT);
  return Math.min(MOST_ASPECT, Math.max(LEAST_ASPECT, aspect));
}
