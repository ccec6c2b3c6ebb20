import type { Editor } from '@tiptap/core';
import { type KeyboardEvent, type PointerEvent, type RefObject, useEffect, useState } from 'react';
import { tracksOfShares } from '#core/page/blocks/columns/schema.ts';
import type { PageDoc } from '#core/page/model.ts';
import { wayTo } from '#core/page/walk.ts';
import { findBlock } from './blocks/arrange.ts';
import { shareColumns } from './blocks/columns/commands.ts';
import { percents } from './blocks/columns/row.tsx';

interface ColumnsMeasureProps {
  readonly editor: Editor;
  readonly page: PageDoc;
  /** The block that the caret is in, or that is selected. */
  readonly block: string | null;
  readonly paper: RefObject<HTMLDivElement | null>;
}

/** A gap between two columns, where it stands on the paper. */
interface Gap {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** So little of the width a column keeps, in percent. */
const LEAST_PERCENT = 10;
const STEP_PERCENT = 2;
/** A gap is at least so wide to be taken hold of. */
const HOLD_PX = 24;

/** The gaps of the columns that one writes in: dragged, or moved by arrow keys, they share the width anew. */
export function ColumnsMeasure({ editor, page, block, paper }: ColumnsMeasureProps) {
  const columns = block === null ? undefined : wayTo(page, block).find(({ type }) => type === 'columns');
  const id = columns?.attrs.id ?? null;
  const gaps = useGaps(editor, id, paper);
  const [dragged, setDragged] = useState<readonly number[] | null>(null);
  if (columns?.type !== 'columns' || id === null) return null;
  const shares = percents(columns.content.map(({ attrs }) => attrs.share));
  return (
    <>
      {/* The element is the editor's own: what is written on it would be taken back. */}
      {dragged ? (
        <style>{`[data-columns="${CSS.escape(id)}"] { --shares: ${tracksOfShares(dragged)} !important; }`}</style>
      ) : null}
      {gaps.map((gap, at) => (
        <GapHandle
          // biome-ignore lint/suspicious/noArrayIndexKey: a gap is known by its place alone
          key={at}
          at={at}
          gap={gap}
          shares={shares}
          width={widthOf(editor, id)}
          onDrag={setDragged}
          onShare={(next) => {
            setDragged(null);
            shareColumns(editor, id, next);
          }}
        />
      ))}
    </>
  );
}

interface GapHandleProps {
  readonly at: number;
  readonly gap: Gap;
  readonly shares: readonly number[];
  /** Of all columns together, in px. */
  readonly width: number;
  readonly onShare: (shares: readonly number[]) => void;
  readonly onDrag: (shares: readonly number[]) => void;
}

function GapHandle({ at, gap, shares, width, onShare, onDrag }: GapHandleProps) {
  const [now, next] = [shares[at] ?? 0, shares[at + 1] ?? 0];
  const moved = (by: number): readonly number[] => {
    const kept = Math.max(LEAST_PERCENT - now, Math.min(next - LEAST_PERCENT, Math.round(by)));
    return shares.map((share, place) =>
      place === at ? share + kept : place === at + 1 ? share - kept : share,
    );
  };
  const begin = (event: PointerEvent<HTMLElement>) => {
    event.preventDefault();
    const handle = event.currentTarget;
    handle.setPointerCapture(event.pointerId);
    const from = event.clientX;
    let last = shares;
    const move = ({ clientX }: globalThis.PointerEvent) => {
      last = moved(((clientX - from) / width) * 100);
      onDrag(last);
    };
    const end = () => {
      handle.removeEventListener('pointermove', move);
      onShare(last);
    };
    handle.addEventListener('pointermove', move);
    handle.addEventListener('pointerup', end, { once: true });
    handle.addEventListener('pointercancel', end, { once: true });
  };
  const step = (event: KeyboardEvent) => {
    const direction = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!direction) return;
    event.preventDefault();
    onShare(moved(direction * STEP_PERCENT));
  };
  const wide = Math.max(gap.width, HOLD_PX);
  return (
    <button
      type="button"
      className="absolute z-2 cursor-ew-resize touch-none after:absolute after:top-1/2 after:left-1/2 after:h-10 after:w-2.5 after:-translate-1/2 after:rounded-sm after:border-2 after:border-measure after:bg-white"
      role="slider"
      aria-label={`Between columns ${at + 1} and ${at + 2}`}
      aria-valuemin={LEAST_PERCENT}
      aria-valuemax={now + next - LEAST_PERCENT}
      aria-valuenow={now}
      aria-valuetext={`${now}% and ${next}%`}
      style={{ left: gap.left + gap.width / 2 - wide / 2, width: wide, top: gap.top, height: gap.height }}
      onPointerDown={begin}
      onKeyDown={step}
    />
  );
}

function elementOf(editor: Editor, id: string): HTMLElement | null {
  const found = findBlock(editor, id);
  const dom = found && editor.view.nodeDOM(found.pos);
  return dom instanceof HTMLElement ? dom : null;
}

/** The width in px that the columns share, without the gaps. */
function widthOf(editor: Editor, id: string): number {
  const columns = [...(elementOf(editor, id)?.children ?? [])];
  return Math.max(
    1,
    columns.reduce((all, one) => all + one.getBoundingClientRect().width, 0),
  );
}

/** Where the gaps stand, kept true while text, widths and pictures change; none where columns stand one below the other. */
function useGaps(editor: Editor, id: string | null, paper: RefObject<HTMLDivElement | null>): readonly Gap[] {
  const [gaps, setGaps] = useState<readonly Gap[]>([]);
  useEffect(() => {
    const sheet = paper.current;
    const look = () => {
      const element = id === null || !sheet ? null : elementOf(editor, id);
      const next = element && sheet ? gapsOf(element, sheet.getBoundingClientRect()) : [];
      setGaps((before) => (JSON.stringify(before) === JSON.stringify(next) ? before : next));
    };
    look();
    const element = id === null ? null : elementOf(editor, id);
    const observer = new ResizeObserver(look);
    if (element) observer.observe(element);
    for (const column of element?.children ?? []) observer.observe(column);
    if (sheet) observer.observe(sheet);
    editor.on('transaction', look);
    return () => {
      observer.disconnect();
      editor.off('transaction', look);
    };
  }, [editor, id, paper]);
  return gaps;
}

function gapsOf(element: HTMLElement, on: DOMRect): readonly Gap[] {
  const boxes = [...element.children].map((column) => column.getBoundingClientRect());
  return boxes.slice(1).flatMap((box, at) => {
    const before = boxes[at];
    if (!before || box.left < before.right - 1) return [];
    const height = Math.max(before.height, box.height);
    return [{ left: before.right - on.left, top: box.top - on.top, width: box.left - before.right, height }];
  });
}
