import type { Editor } from '@tiptap/core';
import type { Node, ResolvedPos } from '@tiptap/pm/model';
import { type RefObject, useRef, useState } from 'react';
import type { Dragged } from '../drag/dragged.ts';
import type { Place, Spot } from '../drag/place.ts';
import { usePlace, useScrollsAlong } from '../drag/use-drag.ts';
import { cx } from '../ui/cx.ts';
import { sheetKindOf } from './blocks/kinds.ts';
import { ROW_GROUP } from './blocks/placement/node.ts';
import { placesFor } from './blocks/walk.ts';
import {
  afterSelection,
  boundaryAt,
  type Found,
  findPlacement,
  inReadingOrder,
  movePlacementsTo,
  movePlacementTo,
  placePieces,
  placesToMove,
} from './commands.ts';

interface SheetPlaceProps {
  readonly editor: Editor;
  /** What scrolls, and what is as large as a piece can be dragged over. */
  readonly pane: RefObject<HTMLElement | null>;
  readonly paper: RefObject<HTMLElement | null>;
  readonly isEditable: boolean;
}

/** Lets pieces be put down between the blocks of the sheet, and draws the line at which they would stand. */
export function SheetPlace({ editor, pane, paper, isEditable }: SheetPlaceProps) {
  const line = useRef<HTMLElement>(null);
  const [at, setAt] = useState<number | null>(null);
  usePlace(pane, sheetPlace(editor, isEditable, line, setAt));
  useScrollsAlong(pane);
  const box = at === null ? null : lineAt(editor, at, paper.current);
  return box ? (
    <i
      ref={line}
      className={cx('pointer-events-none absolute z-2 h-0.75 scroll-m-15 bg-due', NO_TEXT_MARK)}
      style={box}
    />
  ) : null;
}

function sheetPlace(
  editor: Editor,
  isEditable: boolean,
  line: RefObject<HTMLElement | null>,
  show: (at: number | null) => void,
): Place {
  const spot = (dragged: Dragged, at: number): Spot => ({
    // Only said where it is put, or by keys: a pointer passes sixty spots a second, on pages of a thousand blocks.
    get say() {
      return staysAt(editor, dragged) === at ? 'where it stands' : sayBefore(editor.state.doc, at);
    },
    get name() {
      const next = editor.state.doc.nodeAt(at);
      return next ? wordsOf(next) : '';
    },
    mark: (isByKeys) => {
      show(at);
      if (isByKeys) requestAnimationFrame(() => line.current?.scrollIntoView({ block: 'nearest' }));
    },
    put: () => put(editor, dragged, at),
  });
  return {
    takes: ({ from }) => isEditable && from !== 'shelf',
    spotAt: (dragged, { x, y }) => spot(dragged, boundaryUnder(editor, dragged, x, y)),
    spots: (dragged) => boundaries(editor, dragged).map((at) => spot(dragged, at)),
    first: (dragged) => {
      const from = staysAt(editor, dragged) ?? standing(editor, dragged)[0]?.pos ?? afterSelection(editor);
      return Math.max(0, boundaries(editor, dragged).indexOf(from));
    },
    unmark: () => show(null),
  };
}

function put(editor: Editor, dragged: Dragged, at: number): void {
  if (dragged.from === 'tray') placePieces(editor, dragged.ids, at);
  if (dragged.from !== 'sheet') return;
  const [only] = dragged.placementIds;
  if (only !== undefined && dragged.placementIds.length === 1) movePlacementTo(editor, only, at);
  else movePlacementsTo(editor, dragged.placementIds, at);
}

/** Where placements stand already, in reading order. */
function standing(editor: Editor, dragged: Dragged): readonly Found[] {
  if (dragged.from !== 'sheet') return [];
  return inReadingOrder(dragged.placementIds.flatMap((id) => findPlacement(editor, id) ?? []));
}

/** Where what is moved stands already; several that do not stand together come from nowhere. */
function staysAt(editor: Editor, dragged: Dragged): number | null {
  const found = standing(editor, dragged);
  const [first] = found;
  const isRun = found.every(({ pos, node }, at) => {
    const next = found[at + 1];
    return !next || next.pos === pos + node.nodeSize;
  });
  return first && isRun ? first.pos : null;
}

/** The boundary under the pointer; for several pieces the nearest one at which there is room for all. */
function boundaryUnder(editor: Editor, dragged: Dragged, x: number, y: number): number {
  const [first] = standing(editor, dragged);
  const at = boundaryAt(editor, x, y, first ?? null);
  if (dragged.ids.length < 2) return at;
  const places = boundaries(editor, dragged);
  return places.reduce(
    (nearest, place) => (Math.abs(place - at) < Math.abs(nearest - at) ? place : nearest),
    places[0] ?? at,
  );
}

/** The places between blocks where a piece can stand; behind a placement that is moved is the same spot as before it. */
function boundaries(editor: Editor, dragged: Dragged): readonly number[] {
  const { doc, schema } = editor.state;
  const stands = standing(editor, dragged);
  const { placement } = schema.nodes;
  const [first, ...others] = stands;
  if (first) return placesToMove(doc, first, ...others);
  return placement ? placesFor(doc, placement, dragged.ids.length) : [];
}

/** A boundary by the block that comes after it: "before paragraph 3, The tide turns". */
function sayBefore(doc: Node, at: number): string {
  const $at = doc.resolve(at);
  const { nodeAfter: next } = $at;
  const call = (node: Node) => sheetKindOf(node.type.name)?.call(wordsOf(node), doc, node) ?? wordsOf(node);
  if (next) return `before ${call(next)}`;
  return $at.depth === 0 ? 'at the end of the page' : `at the end of ${call($at.parent)}`;
}

const WORDS_SAID = 6;

function wordsOf(node: Node): string {
  const own = sheetKindOf(node.type.name)?.words;
  if (own) return own(node);
  const words = node.textBetween(0, Math.min(node.content.size, 200), ' ', ' ').trim().split(/\s+/u);
  return words.slice(0, WORDS_SAID).join(' ');
}

/** The editor's own mark of where text would go stays away: it is drawn after ours, on the same paper. */
const NO_TEXT_MARK = '[&~.prosemirror-dropcursor-block]:hidden [&~.prosemirror-dropcursor-inline]:hidden';

/** Where the line of a boundary is drawn on the paper: in the gap above what follows, beside what the text flows round. */
function lineAt(editor: Editor, at: number, paper: HTMLElement | null) {
  if (!paper) return null;
  const on = paper.getBoundingClientRect();
  const text = editor.view.dom.getBoundingClientRect();
  const { doc } = editor.state;
  const next = at < doc.content.size ? editor.view.nodeDOM(at) : null;
  const $at = doc.resolve(at);
  if ($at.parent.type.isInGroup(ROW_GROUP)) return lineInRow(editor, $at, on);
  const first = next instanceof HTMLElement ? firstLineOf(next) : null;
  const left = first?.left ?? text.left;
  const y = first ? first.top - 7 : text.bottom + 4;
  return { left: left - on.left, width: text.right - left, top: Math.max(0, y - on.top) };
}

/** Between two pieces of a row the line is upright, as high as the piece beside it. */
function lineInRow(editor: Editor, $at: ResolvedPos, on: DOMRect) {
  const isLast = !$at.nodeAfter;
  const beside = editor.view.nodeDOM(isLast ? $at.pos - ($at.nodeBefore?.nodeSize ?? 0) : $at.pos);
  if (!(beside instanceof HTMLElement)) return null;
  const box = beside.getBoundingClientRect();
  const left = (isLast ? box.right + 2 : box.left - 5) - on.left;
  return { left: Math.max(0, left), width: 3, top: box.top - on.top, height: box.height };
}

function firstLineOf(block: HTMLElement): { readonly left: number; readonly top: number } {
  const { left, top } = block.getBoundingClientRect();
  if (block.tagName === 'FIGURE') return { left, top };
  const letters = document.createRange();
  letters.selectNodeContents(block);
  return { left: letters.getClientRects()[0]?.left ?? left, top };
}
