import type { Editor } from '@tiptap/core';
import {
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
  useEffect,
  useLayoutEffect,
  useState,
} from 'react';
import type { Asset } from '#api/assets.ts';
import type { Margins, Placement, Width } from '#core/page/blocks/placement/schema.ts';
import { pictureUse } from '#core/page/embed-here.ts';
import { isStacked } from '#core/page/layout.ts';
import { LEAST_SHOWN_PX } from '#core/page/room.ts';
import { saySelected } from '#core/page/say-standing.ts';
import type { Standing } from '#core/page/standing.ts';
import { type HouseRules, marginsOf } from '#core/page/target.ts';
import { closestWidth } from '#core/page/width-limits.ts';
import { Dimension, Hatch } from '../measure/dimension.tsx';
import { sayToo } from '../ui/spoken.ts';
import { changePlacement, findPlacement } from './commands.ts';
import { stepped } from './keys.ts';

interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  /** Of the picture alone, without its caption. */
  readonly pictureHeight: number;
  readonly height: number;
}

interface MeasureProps {
  readonly editor: Editor;
  readonly standing: Standing;
  readonly asset: Asset | undefined;
  readonly rules: HouseRules;
  readonly paper: RefObject<HTMLDivElement | null>;
  readonly paperWidth: number;
}

/** The lines stand inside the picture's edges: round it is text, which they would lie on. */
const INSIDE_PX = 5;

/** What a person would measure of the selected placement: its shown size, its margins hatched, a handle for its width. */
export function PlacementMeasure({ editor, standing, asset, rules, paper, paperWidth }: MeasureProps) {
  const { placement } = standing;
  const { figure, box } = useFigureBox(editor, placement, paper);
  const [dragged, setDragged] = useState<number | null>(null);
  // A frame has no px of its own that could be shown larger or smaller.
  const isPicture = asset !== undefined && pictureUse(rules, placement, asset) !== 'none';
  const said =
    box && asset
      ? saySelected(standing, rules, {
          name: asset.label.title || asset.stem,
          width: box.width,
          of: isPicture ? asset.width : null,
        })
      : '';
  useSaid(said, figure);
  if (!box || !figure || !asset) return null;
  const stacked = isStacked(rules, placement, paperWidth);
  const margins = stacked ? { ...marginsOf(placement), left: 0, right: 0 } : marginsOf(placement);
  const innerSide = placement.position === 'beside-right' ? 'left' : 'right';
  const shown = dragged ?? box.width;
  return (
    <div className="pointer-events-none absolute inset-0 z-2 [--color-due:var(--color-measure)] [--color-hatch:var(--color-paper-hatch)]">
      <div
        className="absolute outline-2 outline-measure"
        style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
      />
      <Dimension
        axis="x"
        words={isPicture ? `${Math.round(shown)} px shown of ${asset.width}` : `${Math.round(shown)} px`}
        style={{ left: box.left, top: box.top + INSIDE_PX, width: box.width }}
      />
      <Dimension
        axis="y"
        words={String(Math.round(box.pictureHeight))}
        style={{
          top: box.top,
          height: box.pictureHeight,
          left: innerSide === 'right' ? box.left + box.width - 14 - INSIDE_PX : box.left + INSIDE_PX,
        }}
      />
      <MarginHatches box={box} margins={margins} />
      {standing.room.sort === 'filled' ? null : (
        <WidthHandle
          editor={editor}
          placement={placement}
          rules={rules}
          figure={figure}
          box={box}
          side={innerSide}
          onDrag={setDragged}
        />
      )}
    </div>
  );
}

/** Says what is selected, and what of it a key has changed; the figure says so too, for as long as it is selected. */
function useSaid(said: string, figure: HTMLElement | null): void {
  useEffect(() => {
    if (!figure || said === '') return;
    figure.setAttribute('aria-current', 'true');
    figure.setAttribute('aria-description', said);
    // Told when it has settled: a width that is dragged, or laid out anew, is many on its way.
    const timer = setTimeout(() => sayToo(said), SETTLED_MILLIS);
    return () => {
      clearTimeout(timer);
      figure.removeAttribute('aria-current');
      figure.removeAttribute('aria-description');
    };
  }, [said, figure]);
}

const SETTLED_MILLIS = 150;

function MarginHatches({ box, margins }: { readonly box: Box; readonly margins: Margins }) {
  const { left, top, width, height } = box;
  return (
    <>
      {margins.top > 0 ? (
        <Hatch style={{ left, top: top - margins.top, width, height: margins.top }} />
      ) : null}
      {margins.bottom > 0 ? (
        <Hatch style={{ left, top: top + height, width, height: margins.bottom }} />
      ) : null}
      {margins.left > 0 ? (
        <Hatch style={{ left: left - margins.left, top, width: margins.left, height }} />
      ) : null}
      {margins.right > 0 ? <Hatch style={{ left: left + width, top, width: margins.right, height }} /> : null}
    </>
  );
}

interface HandleProps {
  readonly editor: Editor;
  readonly placement: Placement;
  readonly rules: HouseRules;
  readonly figure: HTMLElement;
  readonly box: Box;
  readonly side: 'left' | 'right';
  readonly onDrag: (width: number | null) => void;
}

const HANDLE_PX = 40;

/** Dragged, it shows the new width at once and writes it when let go; arrow keys step it. */
function WidthHandle({ editor, placement, rules, figure, box, side, onDrag }: HandleProps) {
  const column = figure.parentElement?.clientWidth ?? rules.column;
  const grows = side === 'right' ? 1 : -1;
  const factor = placement.position === 'centred' ? 2 : 1;
  const begin = (event: PointerEvent<HTMLButtonElement>) => {
    event.preventDefault();
    const handle = event.currentTarget;
    handle.setPointerCapture(event.pointerId);
    const startX = event.clientX;
    let width = box.width;
    const move = (moved: globalThis.PointerEvent) => {
      width = Math.max(
        LEAST_SHOWN_PX,
        Math.min(column, box.width + (moved.clientX - startX) * grows * factor),
      );
      figure.style.setProperty('--w', `${width}px`);
      onDrag(width);
    };
    const end = () => {
      handle.removeEventListener('pointermove', move);
      onDrag(null);
      if (width !== box.width)
        changePlacement(editor, placement.id, resized(placement, width, column), 'changing the width');
    };
    handle.addEventListener('pointermove', move);
    handle.addEventListener('pointerup', end, { once: true });
    handle.addEventListener('pointercancel', end, { once: true });
  };
  const step = (event: KeyboardEvent) => {
    const direction = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (direction !== 1 && direction !== -1) return;
    event.preventDefault();
    changePlacement(editor, placement.id, { width: stepped(placement, direction) }, 'changing the width');
  };
  const style = {
    top: box.top + box.pictureHeight - HANDLE_PX - 8,
    left: side === 'right' ? box.left + box.width - 7 : box.left - 7,
  };
  return (
    <button
      type="button"
      className="pointer-events-auto absolute h-10 w-6 -translate-x-1.25 cursor-ew-resize touch-none before:absolute before:inset-x-1.25 before:inset-y-0 before:rounded-sm before:border-2 before:border-measure before:bg-white after:absolute after:top-1/4 after:left-1/2 after:h-1/2 after:w-0.5 after:-translate-x-1/2 after:bg-measure"
      role="slider"
      aria-label="Width"
      aria-valuemin={LEAST_SHOWN_PX}
      aria-valuemax={column}
      aria-valuenow={Math.round(box.width)}
      aria-valuetext={`${Math.round(box.width)} px`}
      style={style}
      onPointerDown={begin}
      onKeyDown={step}
    />
  );
}

/** The width in the unit the placement has; one that fills its room becomes centred at that width. */
function resized(placement: Placement, width: number, column: number): Partial<Placement> {
  const inPx: Width = { unit: 'px', value: Math.round(width) };
  const inPercent: Width = closestWidth({ unit: '%', value: Math.round((width / column) * 100) });
  const next = placement.width?.unit === 'px' ? inPx : inPercent;
  if (
    placement.position === 'column' ||
    placement.position === 'breakout' ||
    placement.position === 'bleed'
  ) {
    return { width: next, position: 'centred', margins: null };
  }
  return { width: next };
}

/** Where the figure stands on the paper, kept true while text, pictures and widths change. */
function useFigureBox(editor: Editor, placement: Placement, paper: RefObject<HTMLDivElement | null>) {
  const [box, setBox] = useState<Box | null>(null);
  const [figure, setFigure] = useState<HTMLElement | null>(null);
  useLayoutEffect(() => {
    const found = findPlacement(editor, placement.id);
    const dom = found && editor.view.nodeDOM(found.pos);
    setFigure(dom instanceof HTMLElement ? dom : null);
  }, [editor, placement]);
  useEffect(() => {
    const sheet = paper.current;
    if (!figure || !sheet) return;
    const look = () => {
      const outer = sheet.getBoundingClientRect();
      const rect = figure.getBoundingClientRect();
      const picture = figure.querySelector('[data-part="window"]')?.getBoundingClientRect();
      setBox({
        left: rect.left - outer.left,
        top: rect.top - outer.top,
        width: rect.width,
        height: rect.height,
        pictureHeight: picture?.height ?? rect.height,
      });
    };
    look();
    const observer = new ResizeObserver(look);
    observer.observe(figure);
    observer.observe(sheet);
    editor.on('transaction', look);
    return () => {
      observer.disconnect();
      editor.off('transaction', look);
    };
  }, [editor, figure, paper]);
  return { figure, box };
}
