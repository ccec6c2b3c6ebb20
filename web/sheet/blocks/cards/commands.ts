import type { Editor } from '@tiptap/core';
import { Fragment, type Node, type Schema } from '@tiptap/pm/model';
import { Selection, TextSelection } from '@tiptap/pm/state';
import { CARDS_LIMIT, isOnCard, perRowFor } from '#core/page/blocks/cards/schema.ts';
import { named } from '../../commands.ts';
import { beginOf, blockOfType, chosenBlocks, findBlock, groupsOf, putInPlace, trimmed } from '../arrange.ts';

/**
 * Makes a row of cards of the chosen blocks: each piece begins one, with the words that come after it; without pieces each
 * heading does, and without headings each paragraph. What comes before the first stays where it is. False where something
 * among them cannot stand on a card.
 */
export function makeCards(editor: Editor): boolean {
  const all = chosenBlocks(editor);
  if (!all) return false;
  const begins = beginOf(all.blocks);
  const before = all.blocks.findIndex(({ type }) => type.name === begins);
  const chosen = trimmed(all, (block) => all.blocks.indexOf(block) >= before);
  if (before < 0 || !chosen?.blocks.every(({ type }) => isOnCard({ type: type.name }))) return false;
  const row = rowOf(editor.schema, chosen.blocks, begins);
  return row.childCount <= CARDS_LIMIT && putInPlace(editor, chosen, row, 'making a row of cards');
}

/** The blocks on cards, each of which begins with a block of a type. */
function rowOf(schema: Schema, blocks: readonly Node[], begins: string | undefined): Node {
  const made = groupsOf(blocks, begins).map((group) => schema.node('card', null, [...group]));
  return schema.node('cards', { perRow: perRowFor(made.length) }, made);
}

/** An empty card behind the last of a row, to be written on. */
export function addCard(editor: Editor, id: string): void {
  const found = findBlock(editor, id);
  const { card, paragraph } = editor.schema.nodes;
  if (!found || !card || !paragraph) return;
  const at = found.pos + found.node.nodeSize - 1;
  const tr = named(editor, 'adding a card').insert(at, card.create(null, paragraph.create()));
  tr.setSelection(TextSelection.near(tr.doc.resolve(at + 2)));
  editor.view.dispatch(tr);
  editor.view.focus();
}

export function removeCard(editor: Editor, id: string): void {
  const found = findBlock(editor, id);
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
  const found = findBlock(editor, id);
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
  const around = blockOfType(editor, 'card');
  return around ? String(around.node.attrs.id) : null;
}
