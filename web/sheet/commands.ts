import type { Editor } from '@tiptap/core';
import { closeHistory } from '@tiptap/pm/history';
import type { Node } from '@tiptap/pm/model';
import { NodeSelection, type Transaction } from '@tiptap/pm/state';
import { shapeOf } from '#core/media/dimensions.ts';
import type { Placement, Want } from '#core/page/model.ts';
import { newPlacement } from '#core/page/model.ts';
import { pieces } from '../pieces/pieces.ts';
import { placementOf } from './placement-node.ts';

/** Marks a transaction with the name that undo says. */
export const NAME_META = 'placard-name';

/** One named step of its own in the history. */
function named(editor: Editor, name: string): Transaction {
  return closeHistory(editor.state.tr).setMeta(NAME_META, name);
}

export interface Found {
  readonly node: Node;
  readonly pos: number;
  readonly index: number;
}

export function findPlacement(editor: Editor, id: string): Found | null {
  let found: Found | null = null;
  editor.state.doc.forEach((node, pos, index) => {
    if (node.type.name === 'placement' && node.attrs.id === id) found = { node, pos, index };
  });
  return found;
}

/** The placement that is selected on the sheet, or null. */
export function selectedPlacement(editor: Editor): Placement | null {
  const { selection } = editor.state;
  return selection instanceof NodeSelection && selection.node.type.name === 'placement'
    ? placementOf(selection.node)
    : null;
}

export function selectPlacement(editor: Editor, id: string): void {
  const found = findPlacement(editor, id);
  if (!found) return;
  editor.view.dispatch(
    editor.state.tr.setSelection(NodeSelection.create(editor.state.doc, found.pos)).scrollIntoView(),
  );
}

export function changePlacement(editor: Editor, id: string, change: Partial<Placement>, name: string): void {
  const found = findPlacement(editor, id);
  if (!found) return;
  const tr = named(editor, name).setNodeMarkup(found.pos, undefined, { ...found.node.attrs, ...change });
  tr.setSelection(NodeSelection.create(tr.doc, found.pos));
  editor.view.dispatch(tr);
}

export function removePlacement(editor: Editor, id: string): void {
  const found = findPlacement(editor, id);
  if (found)
    editor.view.dispatch(
      named(editor, 'taking a piece off the page').delete(found.pos, found.pos + found.node.nodeSize),
    );
}

/** Where a new piece stands at first: upright ones beside the text, the others in the column. */
function firstPosition(assetId: string): Placement['position'] {
  const asset = pieces.state.get(assetId);
  return asset && shapeOf(asset) === 'portrait' ? 'beside-left' : 'column';
}

/** Puts a piece on the sheet at a block boundary, selects it, and puts it on the tray if it is not there. */
export function placePiece(editor: Editor, assetId: string, at: number): void {
  const placement = newPlacement(crypto.randomUUID(), assetId, firstPosition(assetId));
  const node = editor.schema.nodes.placement?.create(placement);
  if (!node) return;
  const tr = named(editor, 'placing a piece').insert(at, node);
  tr.setSelection(NodeSelection.create(tr.doc, at)).scrollIntoView();
  editor.view.dispatch(withOnTray(tr, assetId));
  editor.view.focus();
}

/** Puts a piece in the place of a block that stood for it. */
export function placeOver(editor: Editor, assetId: string, at: number): void {
  const placement = newPlacement(crypto.randomUUID(), assetId, firstPosition(assetId));
  const node = editor.schema.nodes.placement?.create(placement);
  const before = editor.state.doc.nodeAt(at);
  if (!node || !before) return;
  const tr = named(editor, 'taking the picture in').replaceWith(at, at + before.nodeSize, node);
  editor.view.dispatch(withOnTray(tr, assetId));
}

/** The block boundary after the block in which the selection ends. */
export function afterSelection(editor: Editor): number {
  const { $to } = editor.state.selection;
  return $to.depth === 0 ? $to.pos : $to.after(1);
}

/** The block boundary nearest to a point of the screen. */
export function boundaryAt(editor: Editor, left: number, top: number): number {
  if (top < editor.view.dom.getBoundingClientRect().top) return 0;
  const at = editor.view.posAtCoords({ left, top });
  if (!at) return editor.state.doc.content.size;
  const $pos = editor.state.doc.resolve(at.inside >= 0 ? at.inside : at.pos);
  const start = $pos.depth === 0 ? $pos.pos : $pos.before(1);
  const block = editor.state.doc.nodeAt(start);
  const dom = editor.view.nodeDOM(start);
  if (!block || !(dom instanceof HTMLElement)) return start;
  const box = dom.getBoundingClientRect();
  return top < box.top + box.height / 2 ? start : start + block.nodeSize;
}

export type Move = 'up' | 'down' | 'top' | 'bottom' | { readonly besideParagraph: number };

const MOVE_NAMES: Readonly<Record<string, string>> = {
  up: 'moving it up',
  down: 'moving it down',
  top: 'moving it to the top',
  bottom: 'moving it to the bottom',
};

/** Moves a placement among the blocks of the page; false when it is there already. */
export function movePlacement(editor: Editor, id: string, move: Move): boolean {
  const found = findPlacement(editor, id);
  if (!found) return false;
  const { doc } = editor.state;
  const to = Math.max(0, Math.min(doc.childCount - 1, indexAfter(doc, found.index, move)));
  if (to === found.index) return false;
  const name =
    typeof move === 'string'
      ? (MOVE_NAMES[move] ?? 'moving it')
      : `moving it beside paragraph ${move.besideParagraph}`;
  const tr = named(editor, name).delete(found.pos, found.pos + found.node.nodeSize);
  let pos = 0;
  for (let index = 0; index < to; index += 1) pos += tr.doc.child(index).nodeSize;
  tr.insert(pos, found.node).setSelection(NodeSelection.create(tr.doc, pos)).scrollIntoView();
  editor.view.dispatch(tr);
  return true;
}

/** Moves a placement to a block boundary, as when it is dragged there. */
export function movePlacementTo(editor: Editor, id: string, at: number): void {
  const found = findPlacement(editor, id);
  if (!found) return;
  const end = found.pos + found.node.nodeSize;
  if (at >= found.pos && at <= end) return;
  const tr = named(editor, 'moving it').delete(found.pos, end);
  const to = tr.mapping.map(at);
  tr.insert(to, found.node).setSelection(NodeSelection.create(tr.doc, to));
  editor.view.dispatch(tr);
}

/** The index the placement has after the move, among the blocks without itself. */
function indexAfter(doc: Node, index: number, move: Move): number {
  switch (move) {
    case 'up':
      return index - 1;
    case 'down':
      return index + 1;
    case 'top':
      return 0;
    case 'bottom':
      return lastWritten(doc, index);
    default: {
      const target = paragraphIndexes(doc)[move.besideParagraph - 1];
      if (target === undefined) return index;
      return target > index ? target - 1 : target;
    }
  }
}

/** The bottom is after the last block that says something; an empty last paragraph stays last. */
function lastWritten(doc: Node, index: number): number {
  const last = doc.childCount - 1;
  const isBlank = doc.child(last).type.name === 'paragraph' && doc.child(last).content.size === 0;
  return index === last ? last : isBlank ? last - 1 : last;
}

/** Indexes of the paragraphs that hold text: paragraph N of the page is the N-th of them. */
export function paragraphIndexes(doc: Node): readonly number[] {
  const indexes: number[] = [];
  doc.forEach((node, _pos, index) => {
    if (node.type.name === 'paragraph' && node.content.size > 0) indexes.push(index);
  });
  return indexes;
}

/** The number of the paragraph that a placement stands before, or 0 when none follows. */
export function paragraphNumber(editor: Editor, id: string): number {
  const found = findPlacement(editor, id);
  if (!found) return 0;
  return paragraphIndexes(editor.state.doc).findIndex((index) => index > found.index) + 1;
}

function trayOf(tr: Transaction): readonly string[] {
  return tr.doc.attrs.tray as readonly string[];
}

function withOnTray(tr: Transaction, assetId: string): Transaction {
  const tray = trayOf(tr);
  return tray.includes(assetId) ? tr : tr.setDocAttribute('tray', [...tray, assetId]);
}

export function addToTray(editor: Editor, assetId: string): void {
  const tr = withOnTray(named(editor, 'putting a piece on the tray'), assetId);
  if (tr.docChanged) editor.view.dispatch(tr);
}

export function takeOffTray(editor: Editor, assetId: string): void {
  const tr = named(editor, 'taking a piece off the tray');
  editor.view.dispatch(
    tr.setDocAttribute(
      'tray',
      trayOf(tr).filter((id) => id !== assetId),
    ),
  );
}

/** Moves a piece on the tray before another one, or to its end; false when it stands there already. */
export function moveOnTray(editor: Editor, assetId: string, before: string | null): boolean {
  const tr = named(editor, 'moving it on the tray');
  const now = trayOf(tr);
  const others = now.filter((id) => id !== assetId);
  const at = before === null ? others.length : others.indexOf(before);
  if (at < 0 || !now.includes(assetId)) return false;
  const next = [...others.slice(0, at), assetId, ...others.slice(at)];
  if (next.every((id, index) => id === now[index])) return false;
  editor.view.dispatch(tr.setDocAttribute('tray', next));
  return true;
}

export function setWants(editor: Editor, wants: readonly Want[], name: string): void {
  editor.view.dispatch(named(editor, name).setDocAttribute('wants', wants));
}

/** Fills a want with a piece, and puts the piece on the tray. */
export function fillWant(editor: Editor, wantId: string, assetId: string): void {
  const tr = withOnTray(named(editor, 'filling a want'), assetId);
  const wants = tr.doc.attrs.wants as readonly Want[];
  editor.view.dispatch(
    tr.setDocAttribute(
      'wants',
      wants.map((want) => (want.id === wantId ? { ...want, filledBy: assetId } : want)),
    ),
  );
}

/** Typing in the title joins into one step of undo, as typing in the text does. */
export function setTitle(editor: Editor, title: string): void {
  editor.view.dispatch(
    editor.state.tr.setDocAttribute('title', title).setMeta(NAME_META, 'changing the title'),
  );
}
