import type { Editor } from '@tiptap/core';
import { Fragment, type Node, type Schema } from '@tiptap/pm/model';
import { Selection, TextSelection } from '@tiptap/pm/state';
import type { Ratio } from '#core/media/crop.ts';
import { CARDS_LIMIT, isOnCard, perRowFor } from '#core/page/blocks/cards/schema.ts';
import { named } from '../../commands.ts';
import { forEachBlock } from '../walk.ts';

/**
 * Makes a row of cards of the chosen blocks: each piece begins one, with the words that come after it; without pieces each
 * heading does, and without headings each paragraph. What comes before the first stays where it is. False where something
 * among them cannot stand on a card.
 */
export function makeCards(editor: Editor): boolean {
  const { $from, $to } = editor.state.selection;
  const range = $from.blockRange($to);
  const { cards } = editor.schema.nodes;
  if (!range || !cards) return false;
  const { parent } = range;
  const all: Node[] = [];
  for (let at = range.startIndex; at < range.endIndex; at += 1) all.push(parent.child(at));
  const begins = ['placement', 'heading', 'paragraph'].find((name) =>
    all.some(({ type }) => type.name === name),
  );
  const before = all.findIndex(({ type }) => type.name === begins);
  const chosen = all.slice(before);
  const from = range.startIndex + before;
  const isFit = before >= 0 && parent.canReplaceWith(from, range.endIndex, cards);
  if (!isFit || !chosen.every(({ type }) => isOnCard({ type: type.name }))) return false;
  const row = rowOf(editor.schema, chosen, begins);
  if (row.childCount > CARDS_LIMIT) return false;
  const start = range.start + all.slice(0, before).reduce((sum, { nodeSize }) => sum + nodeSize, 0);
  const tr = named(editor, 'making a row of cards');
  tr.replaceWith(start, range.end, row);
  tr.setSelection(Selection.near(tr.doc.resolve(start + 1)));
  editor.view.dispatch(tr);
  return true;
}

/** The blocks on cards, each of which begins with a block of a type; empty lines among them are left out. */
function rowOf(schema: Schema, blocks: readonly Node[], begins: string | undefined): Node {
  const said = blocks.filter((block) => !block.isTextblock || block.content.size > 0);
  const groups: Node[][] = [];
  for (const block of said.length > 0 ? said : blocks) {
    const last = groups.at(-1);
    if (last && block.type.name !== begins) last.push(block);
    else groups.push([block]);
  }
  const made = groups.map((group) => schema.node('card', null, group));
  return schema.node('cards', { perRow: perRowFor(made.length) }, made);
}

/** Lets what stands on the cards of a row stand by itself again. */
export function takeCardsApart(editor: Editor, id: string): void {
  const found = find(editor, id);
  if (!found) return;
  const blocks = found.node.children.flatMap(({ children }) => children);
  const tr = named(editor, 'taking the cards apart');
  tr.replaceWith(found.pos, found.pos + found.node.nodeSize, blocks);
  tr.setSelection(Selection.near(tr.doc.resolve(found.pos)));
  editor.view.dispatch(tr);
}

/** Cuts the pieces on the cards of a row to one shape, or shows each in its own. */
export function shapeCards(editor: Editor, id: string, ratio: Ratio | null): void {
  const found = find(editor, id);
  if (!found) return;
  const tr = named(editor, 'the shape of the cards’ pictures');
  found.node.descendants((node, pos) => {
    if (node.type.name === 'placement') tr.setNodeAttribute(found.pos + 1 + pos, 'ratio', ratio);
  });
  if (tr.docChanged) editor.view.dispatch(tr);
}

/** An empty card behind the last of a row, to be written on. */
export function addCard(editor: Editor, id: string): void {
  const found = find(editor, id);
  const { card, paragraph } = editor.schema.nodes;
  if (!found || !card || !paragraph) return;
  const at = found.pos + found.node.nodeSize - 1;
  const tr = named(editor, 'adding a card').insert(at, card.create(null, paragraph.create()));
  tr.setSelection(TextSelection.near(tr.doc.resolve(at + 2)));
  editor.view.dispatch(tr);
  editor.view.focus();
}

export function removeCard(editor: Editor, id: string): void {
  const found = find(editor, id);
  if (!found) return;
  const $pos = editor.state.doc.resolve(found.pos);
  // The last card takes its row along.
  const isLast = $pos.parent.childCount === 1;
  const [from, size] = isLast ? [$pos.before(), $pos.parent.nodeSize] : [found.pos, found.node.nodeSize];
  const tr = named(editor, 'removing a card').delete(from, from + size);
  tr.setSelection(Selection.near(tr.doc.resolve(Math.min(from, tr.doc.content.size))));
  editor.view.dispatch(tr);
}

/** Moves a card by one place in its row, with the caret in it; false where it is the first or last. */
export function moveCard(editor: Editor, id: string, by: -1 | 1): boolean {
  const found = find(editor, id);
  if (!found) return false;
  const $pos = editor.state.doc.resolve(found.pos);
  const at = $pos.index();
  const other = $pos.parent.maybeChild(at + by);
  if (!other) return false;
  const [first, second] = by < 0 ? [found.node, other] : [other, found.node];
  const start = by < 0 ? found.pos - other.nodeSize : found.pos;
  const caret = editor.state.selection.head - found.pos;
  const tr = named(editor, by < 0 ? 'moving a card to the left' : 'moving a card to the right');
  tr.replaceWith(start, start + first.nodeSize + second.nodeSize, Fragment.from([first, second]));
  const now = by < 0 ? start : start + first.nodeSize;
  tr.setSelection(
    Selection.near(tr.doc.resolve(Math.max(now + 1, Math.min(now + caret, tr.doc.content.size)))),
  );
  editor.view.dispatch(tr);
  return true;
}

/** The card that the caret is in, or a piece on it that is selected. */
export function cardAround(editor: Editor): string | null {
  const { $from } = editor.state.selection;
  for (let depth = $from.depth; depth > 0; depth -= 1)
    if ($from.node(depth).type.name === 'card') return String($from.node(depth).attrs.id);
  return null;
}

function find(editor: Editor, id: string): { readonly node: Node; readonly pos: number } | null {
  let found: { readonly node: Node; readonly pos: number } | null = null;
  forEachBlock(editor.state.doc, (node, pos) => {
    if (node.attrs.id === id) found = { node, pos };
  });
  return found;
}
