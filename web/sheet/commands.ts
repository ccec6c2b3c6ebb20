import type { Editor } from '@tiptap/core';
import { closeHistory } from '@tiptap/pm/history';
import type { Node } from '@tiptap/pm/model';
import { NodeSelection, Selection, TextSelection, type Transaction } from '@tiptap/pm/state';
import { Transform } from '@tiptap/pm/transform';
import { shapeOf } from '#core/media/dimensions.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import type { Want } from '#core/page/model.ts';
import { fileHref } from '#core/page/page-address.ts';
import { pieces } from '../pieces/pieces.ts';
import { paragraphPlaces } from './blocks/paragraph/numbers.ts';
import { placementOf, ROW_GROUP } from './blocks/placement/node.ts';
import { blockAround, forEachBlock, holdsBlocks, lastPlace, placesFor } from './blocks/walk.ts';
import { NAME_META } from './step-name.ts';

/** One named step of its own in the history. */
export function named(editor: Editor, name: string): Transaction {
  return closeHistory(editor.state.tr).setMeta(NAME_META, name);
}

export interface Found {
  readonly node: Node;
  readonly pos: number;
}

export function findPlacement(editor: Editor, id: string): Found | null {
  let found: Found | null = null;
  forEachBlock(editor.state.doc, (node, pos) => {
    if (node.type.name === 'placement' && node.attrs.id === id) found = { node, pos };
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

/** Puts the caret into the words of a block, all of them chosen, to be written over. */
export function selectWords(editor: Editor, blockId: string): void {
  const { doc, tr } = editor.state;
  forEachBlock(doc, (node, pos) => {
    if (node.attrs.id !== blockId) return;
    const [from, to] = [doc.resolve(pos), doc.resolve(pos + node.nodeSize)];
    editor.view.dispatch(tr.setSelection(TextSelection.between(from, to)).scrollIntoView());
  });
  editor.view.focus();
}

/** Lets go of a piece that is selected: the caret stands in the words behind it, or before it where there are none. Elsewhere it stays. */
export function letGo(editor: Editor): void {
  const { doc, selection, tr } = editor.state;
  if (!(selection instanceof NodeSelection)) return;
  const words =
    Selection.findFrom(doc.resolve(selection.to), 1, true) ??
    Selection.findFrom(doc.resolve(selection.from), -1, true);
  if (words) editor.view.dispatch(tr.setSelection(words));
}

export function changePlacement(editor: Editor, id: string, change: Partial<Placement>, name: string): void {
  const found = findPlacement(editor, id);
  if (!found) return;
  const tr = named(editor, name).setNodeMarkup(found.pos, undefined, { ...found.node.attrs, ...change });
  tr.setSelection(NodeSelection.create(tr.doc, found.pos));
  editor.view.dispatch(tr);
}

/** Changes attributes of a block; false when it is gone. */
export function changeBlock(
  editor: Editor,
  id: string,
  change: Readonly<Record<string, unknown>>,
  name: string,
): boolean {
  const tr = named(editor, name);
  forEachBlock(editor.state.doc, (block, pos) => {
    if (block.attrs.id === id) tr.setNodeMarkup(pos, undefined, { ...block.attrs, ...change });
  });
  if (tr.docChanged) editor.view.dispatch(tr);
  return tr.docChanged;
}

export function removePlacements(editor: Editor, ids: readonly string[]): void {
  const found = inReadingOrder(ids.flatMap((id) => findPlacement(editor, id) ?? []));
  if (found.length === 0) return;
  const what = found.length === 1 ? 'a piece' : `${found.length} pieces`;
  const tr = named(editor, `taking ${what} off the page`);
  for (const { node, pos } of [...found].reverse()) tr.delete(pos, pos + node.nodeSize);
  editor.view.dispatch(tr);
}

/** Where a new piece stands at first: upright ones beside the text, documents small, the others in the column. */
function firstStanding(assetId: string): Partial<Placement> {
  const asset = pieces.state.get(assetId);
  if (asset?.kind === 'document') return { position: 'beside-right', width: DOCUMENT_WIDTH };
  return { position: asset && shapeOf(asset) === 'portrait' ? 'beside-left' : 'column' };
}

/** A first page leads to what it is of, and is not read where it stands. */
const DOCUMENT_WIDTH = { unit: '%', value: 28 } as const;

/** Puts a piece on the sheet at a block boundary, selects it, and puts it on the tray if it is not there. */
export function placePiece(editor: Editor, assetId: string, at: number): void {
  const placement = { ...newPlacement(crypto.randomUUID(), assetId), ...firstStanding(assetId) };
  const node = editor.schema.nodes.placement?.create(placement);
  if (!node) return;
  const tr = named(editor, 'placing a piece').insert(at, node);
  tr.setSelection(NodeSelection.create(tr.doc, at)).scrollIntoView();
  editor.view.dispatch(withOnTray(tr, assetId));
  editor.view.focus();
}

/** Puts pieces on the sheet at a block boundary, one behind the other, in one step. */
export function placePieces(editor: Editor, assetIds: readonly string[], at: number): void {
  const [only] = assetIds;
  if (only !== undefined && assetIds.length === 1) {
    placePiece(editor, only, at);
    return;
  }
  const nodes = assetIds.flatMap(
    (asset) =>
      editor.schema.nodes.placement?.create({
        ...newPlacement(crypto.randomUUID(), asset),
        ...firstStanding(asset),
      }) ?? [],
  );
  if (nodes.length === 0) return;
  const tr = named(editor, `placing ${nodes.length} pieces`).insert(at, nodes);
  tr.setSelection(NodeSelection.create(tr.doc, at)).scrollIntoView();
  editor.view.dispatch(assetIds.reduce(withOnTray, tr));
  editor.view.focus();
}

/** Puts a piece in the place of a block that stood for it. */
export function placeOver(editor: Editor, assetId: string, at: number): void {
  const placement = { ...newPlacement(crypto.randomUUID(), assetId), ...firstStanding(assetId) };
  const node = editor.schema.nodes.placement?.create(placement);
  const before = editor.state.doc.nodeAt(at);
  if (!node || !before) return;
  const tr = named(editor, 'taking the picture in').replaceWith(at, at + before.nodeSize, node);
  editor.view.dispatch(withOnTray(tr, assetId));
}

/**
 * The place for a new block behind the one in which the selection ends, in the innermost that takes one of its type: a column,
 * a card, or the page itself, where it stands before the empty line that ends it.
 */
export function afterSelection(editor: Editor, type = 'placement'): number {
  const { doc, selection, schema } = editor.state;
  const { $to } = selection;
  const made = schema.nodes[type];
  const { parent } = $to;
  const isBetween = $to.depth > 0 && !parent.inlineContent;
  // Behind the piece that is selected in a row of them.
  if (made && isBetween && parent.canReplaceWith($to.index(), $to.index(), made)) return $to.pos;
  for (let depth = $to.depth; depth > 1; depth -= 1) {
    const holder = $to.node(depth - 1);
    const at = $to.indexAfter(depth - 1);
    if (made && holdsBlocks(holder) && holder.canReplaceWith(at, at, made)) return $to.after(depth);
  }
  return Math.min($to.depth === 0 ? $to.pos : $to.after(1), lastPlace(doc));
}

interface SpotOnScreen {
  readonly left: number;
  readonly top: number;
}

/**
 * The place for a piece between blocks that is nearest to a point of the screen, in what holds blocks there; `moved` is the
 * piece where it stands on the sheet already.
 */
export function boundaryAt(editor: Editor, left: number, top: number, moved: Found | null = null): number {
  return Math.min(boundaryNear(editor, { left, top }, moved), lastPlace(editor.state.doc));
}

function boundaryNear(editor: Editor, spot: SpotOnScreen, moved: Found | null): number {
  const { doc, schema } = editor.state;
  const from = moved && doc.resolve(moved.pos);
  if (spot.top < editor.view.dom.getBoundingClientRect().top) return 0;
  const at = editor.view.posAtCoords(spot);
  if (!at) return doc.content.size;
  const inside = at.inside >= 0 ? at.inside : at.pos;
  const $pos = doc.resolve(nearestInRow(editor, inside, spot) ?? inside);
  const around = blockAround($pos);
  const depth =
    around && !(around.depth === $pos.depth && holdsBlocks(around.block)) ? around.depth : $pos.depth + 1;
  for (let d = depth; d >= 1; d -= 1) {
    const place = besideBlock(editor, d > $pos.depth ? $pos.pos : $pos.before(d), spot);
    const $place = doc.resolve(place);
    const isIn =
      (schema.nodes.placement &&
        $place.parent.canReplaceWith($place.index(), $place.index(), schema.nodes.placement)) ||
      // Where it stands already there is room for it.
      (from && from.depth > 0 && from.sameParent($place));
    // Over or under all that it holds, a block is passed by.
    if (isIn && !isBeyond(editor, place, spot.top)) return place;
  }
  return besideBlock(editor, $pos.depth === 0 ? $pos.pos : $pos.before(1), spot);
}

/** The piece of a row at a position that is nearest to a point, as between two of them; null where no row is. */
function nearestInRow(editor: Editor, pos: number, { left, top }: SpotOnScreen): number | null {
  const row = editor.state.doc.nodeAt(pos);
  if (!row?.type.isInGroup(ROW_GROUP)) return null;
  let nearest: { readonly at: number; readonly distance: number } | null = null;
  row.forEach((_piece, offset) => {
    const at = pos + 1 + offset;
    const dom = editor.view.nodeDOM(at);
    if (!(dom instanceof HTMLElement)) return;
    const box = dom.getBoundingClientRect();
    const across = Math.max(box.left - left, 0, left - box.right);
    const down = Math.max(box.top - top, 0, top - box.bottom);
    const distance = Math.hypot(across, down);
    if (!nearest || distance < nearest.distance) nearest = { at, distance };
  });
  return nearest === null ? null : (nearest as { readonly at: number }).at;
}

/** Before or after the block at a position, whichever is nearer to a point: along a row, or from top to bottom. */
function besideBlock(editor: Editor, start: number, { left, top }: SpotOnScreen): number {
  const { doc } = editor.state;
  const block = doc.nodeAt(start);
  const dom = editor.view.nodeDOM(start);
  if (!block || !(dom instanceof HTMLElement)) return start;
  const box = dom.getBoundingClientRect();
  const isBefore = doc.resolve(start).parent.type.isInGroup(ROW_GROUP)
    ? left < box.left + box.width / 2
    : top < box.top + box.height / 2;
  return isBefore ? start : start + block.nodeSize;
}

/** Whether a place is the first or last in a block, and the height is nearer to that block's edge than to what it holds. */
function isBeyond(editor: Editor, place: number, top: number): boolean {
  const $place = editor.state.doc.resolve(place);
  if ($place.depth === 0) return false;
  const dom = editor.view.nodeDOM($place.before());
  if (!(dom instanceof HTMLElement)) return false;
  const box = dom.getBoundingClientRect();
  const isRow = $place.parent.type.isInGroup(ROW_GROUP);
  if ((isRow || $place.index() === 0) && top < box.top + EDGE_PX) return true;
  return (isRow || $place.index() === $place.parent.childCount) && top > box.bottom - EDGE_PX;
}

/** So near to the edge of a block that holds others, what is put down stands beside it and not in it. */
const EDGE_PX = 10;

export type Move = 'up' | 'down' | 'top' | 'bottom' | { readonly besideParagraph: number };

const MOVE_NAMES: Readonly<Record<string, string>> = {
  up: 'moving it up',
  down: 'moving it down',
  top: 'moving it to the top',
  bottom: 'moving it to the bottom',
};

/** Moves a placement among the blocks of the page, into those that hold others and out again; false when it is there already. */
export function movePlacement(editor: Editor, id: string, move: Move): boolean {
  const found = findPlacement(editor, id);
  const to = found && placeAfter(editor.state.doc, found, move);
  if (!found || to === null || to === found.pos) return false;
  const name =
    typeof move === 'string'
      ? (MOVE_NAMES[move] ?? 'moving it')
      : `moving it beside paragraph ${move.besideParagraph}`;
  editor.view.dispatch(moved(editor, found, to, name).scrollIntoView());
  return true;
}

function moved(editor: Editor, { node, pos }: Found, at: number, name: string): Transaction {
  const tr = named(editor, name).delete(pos, pos + node.nodeSize);
  const to = tr.mapping.map(at);
  return tr.insert(to, node).setSelection(NodeSelection.create(tr.doc, to));
}

/** Moves a placement to a block boundary, as when it is dragged there. */
export function movePlacementTo(editor: Editor, id: string, at: number): void {
  const found = findPlacement(editor, id);
  if (!found) return;
  const end = found.pos + found.node.nodeSize;
  if (at >= found.pos && at <= end) return;
  editor.view.dispatch(moved(editor, found, at, 'moving it'));
}

/** Moves placements together to a block boundary, where they stand one behind the other in reading order. */
export function movePlacementsTo(editor: Editor, ids: readonly string[], at: number): void {
  const found = inReadingOrder(ids.flatMap((id) => findPlacement(editor, id) ?? []));
  const [first] = found;
  if (!first) return;
  const tr = named(editor, `moving ${found.length} pieces`);
  for (const { node, pos } of [...found].reverse()) tr.delete(pos, pos + node.nodeSize);
  const to = tr.mapping.map(at, -1);
  tr.insert(
    to,
    found.map(({ node }) => node),
  );
  if (tr.doc.eq(editor.state.doc)) return;
  editor.view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, to)).scrollIntoView());
}

export const inReadingOrder = (found: readonly Found[]): readonly Found[] =>
  [...found].sort((one, other) => one.pos - other.pos);

/** The place to which a move leads, or null where there is none. Behind the placement is the same place as before it. */
function placeAfter(doc: Node, { node, pos }: Found, move: Move): number | null {
  const places = placesToMove(doc, { node, pos });
  const now = places.indexOf(pos);
  switch (move) {
    case 'up':
      return places[now - 1] ?? null;
    case 'down':
      return places[now + 1] ?? null;
    case 'top':
      return 0;
    case 'bottom':
      return lastPlace(doc);
    default:
      return paragraphPlaces(doc)[move.besideParagraph - 1] ?? null;
  }
}

/**
 * All places to which a block, or several of one kind together, may be moved, in reading order, its own among them: those there are once it is taken out, for
 * what holds no more than it has may have room for it again.
 */
export function placesToMove(doc: Node, ...moved: readonly [Found, ...Found[]]): readonly number[] {
  const without = new Transform(doc);
  for (const { node, pos } of [...inReadingOrder(moved)].reverse()) without.delete(pos, pos + node.nodeSize);
  const back = without.mapping.invert();
  return placesFor(without.doc, moved[0].node.type, moved.length).map((at) => back.map(at, -1));
}

/** How many paragraphs hold text. */
export function paragraphCount(editor: Editor): number {
  return paragraphPlaces(editor.state.doc).length;
}

/** The number of the paragraph that a placement stands before, or 0 when none follows. */
export function paragraphNumber(editor: Editor, id: string): number {
  const found = findPlacement(editor, id);
  if (!found) return 0;
  return paragraphPlaces(editor.state.doc).findIndex((pos) => pos > found.pos) + 1;
}

function trayOf(tr: Transaction): readonly string[] {
  return tr.doc.attrs.tray as readonly string[];
}

export function withOnTray(tr: Transaction, assetId: string): Transaction {
  const tray = trayOf(tr);
  return tray.includes(assetId) ? tr : tr.setDocAttribute('tray', [...tray, assetId]);
}

export function addToTray(editor: Editor, assetId: string): void {
  const tr = withOnTray(named(editor, 'putting a piece on the tray'), assetId);
  if (tr.docChanged) editor.view.dispatch(tr);
}

export function takeOffTray(editor: Editor, assetId: string): void {
  takeAllOffTray(editor, [assetId]);
}

export function takeAllOffTray(editor: Editor, assetIds: readonly string[]): void {
  const name = assetIds.length === 1 ? 'taking a piece off the tray' : 'taking pieces off the tray';
  const tr = named(editor, name);
  editor.view.dispatch(
    tr.setDocAttribute(
      'tray',
      trayOf(tr).filter((id) => !assetIds.includes(id)),
    ),
  );
}

/** Moves a piece on the tray before another one, or to its end; false when it stands there already. */
export function moveOnTray(editor: Editor, assetIds: readonly string[], before: string | null): boolean {
  const tr = named(editor, assetIds.length > 1 ? 'moving them on the tray' : 'moving it on the tray');
  const now = trayOf(tr);
  const moved = now.filter((id) => assetIds.includes(id));
  const others = now.filter((id) => !moved.includes(id));
  // Before one that is moved itself is where the first that stays behind it stands.
  const following = before === null ? null : now.slice(now.indexOf(before)).find((id) => !moved.includes(id));
  const at = following ? others.indexOf(following) : others.length;
  if (moved.length === 0 || (before !== null && !now.includes(before))) return false;
  const next = [...others.slice(0, at), ...moved, ...others.slice(at)];
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

/** Puts words where the caret is that lead to the file of a document. */
export function linkFile(editor: Editor, assetId: string, words: string): void {
  const mark = editor.schema.mark('link', { href: fileHref(assetId) });
  const tr = named(editor, 'a link to a file').replaceSelectionWith(editor.schema.text(words, [mark]), false);
  editor.view.dispatch(tr.scrollIntoView());
  editor.view.focus();
}

/** Says where the page stands on its site; the empty text, that nobody knows. */
export function setAddress(editor: Editor, address: string): void {
  const tr = named(editor, 'the address of the page');
  editor.view.dispatch(tr.setDocAttribute('address', address === '' ? null : address));
}

/** Says what listings and shared links call the page, and what they say of it; empty texts, that nobody has. */
export function setPageWords(
  editor: Editor,
  words: Readonly<Record<'headTitle' | 'summary' | 'keyPhrase', string>>,
): void {
  const tr = named(editor, 'the words of the page');
  for (const [fact, text] of Object.entries(words)) tr.setDocAttribute(fact, text === '' ? null : text);
  editor.view.dispatch(tr);
}

/** Typing in the title joins into one step of undo, as typing in the text does. */
export function setTitle(editor: Editor, title: string): void {
  editor.view.dispatch(
    editor.state.tr.setDocAttribute('title', title).setMeta(NAME_META, 'changing the title'),
  );
}
