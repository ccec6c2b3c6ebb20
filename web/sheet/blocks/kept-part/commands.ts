import type { Editor } from '@tiptap/core';
import { Fragment, type Node } from '@tiptap/pm/model';
import { Selection, type Transaction } from '@tiptap/pm/state';
import { type InPart, isInPart } from '#core/page/blocks/kept-part/schema.ts';
import { contentFor } from '#core/page/kept-parts.ts';
import { placementsOf } from '#core/page/walk.ts';
import { afterSelection, named, withOnTray } from '../../commands.ts';
import { findBlock } from '../arrange.ts';
import { lastPlace } from '../walk.ts';

/** The part that the selection stands in; null for none. */
export function partAround({ state: { selection } }: Editor): Node | null {
  for (let depth = selection.$from.depth; depth > 0; depth -= 1) {
    const node = selection.$from.node(depth);
    if (node.type.name === 'keptPart') return node;
  }
  return null;
}

/** Sets whole blocks of the page apart as a part: those that the selection stands in, whatever of them is chosen. */
export function setPartApart(editor: Editor): boolean {
  const { doc, selection, schema } = editor.state;
  const { $from, $to } = selection;
  const type = schema.nodes.keptPart;
  const [from, to] = [
    $from.depth > 0 ? $from.before(1) : selection.from,
    $to.depth > 0 ? $to.after(1) : selection.to,
  ];
  const blocks = doc.slice(from, to).content;
  if (!type || blocks.childCount === 0 || !blocks.content.every((node) => isInPart({ type: node.type.name })))
    return false;
  const part = type.create({ id: crypto.randomUUID(), part: '' }, blocks);
  const tr = named(editor, 'setting a part apart').replaceWith(from, to, part);
  editor.view.dispatch(tr.setSelection(Selection.near(tr.doc.resolve(from + 1))));
  return true;
}

/** Lets what stands in a part stand by itself: the page goes its own way. */
export function unlinkPart(editor: Editor, id: string): void {
  const found = findBlock(editor, id);
  if (!found) return;
  const end = found.pos + found.node.nodeSize;
  const tr = named(editor, 'unlinking a part').replaceWith(found.pos, end, found.node.content);
  editor.view.dispatch(tr.setSelection(Selection.near(tr.doc.resolve(found.pos + 1))));
}

/** Says what is kept of a part of the page. */
export function namePart(editor: Editor, id: string, part: string): void {
  const found = findBlock(editor, id);
  if (found) editor.view.dispatch(named(editor, 'keeping a part').setNodeAttribute(found.pos, 'part', part));
}

/** Makes a part as it is kept. */
export function makeAsKept(editor: Editor, id: string, blocks: readonly InPart[]): void {
  const found = findBlock(editor, id);
  if (!found) return;
  const [from, to] = [found.pos + 1, found.pos + found.node.nodeSize - 1];
  const tr = named(editor, 'making a part as it is kept').replaceWith(from, to, nodesOf(editor, blocks, id));
  // The caret stays in the part, which its label is about.
  editor.view.dispatch(withPieces(tr, blocks).setSelection(Selection.near(tr.doc.resolve(from + 1))));
}

/** Puts a part where the caret is: behind the block of the page that it stands in. */
export function addPart(editor: Editor, part: string, blocks: readonly InPart[]): void {
  const { schema, doc, selection } = editor.state;
  const id = crypto.randomUUID();
  const node = schema.nodes.keptPart?.create({ id, part }, nodesOf(editor, blocks, id));
  if (!node) return;
  const behind = selection.$from.depth > 0 ? selection.$from.after(1) : afterSelection(editor);
  const at = Math.min(behind, lastPlace(doc));
  const tr = named(editor, 'adding a kept part').insert(at, node);
  tr.setSelection(Selection.near(tr.doc.resolve(at + 2))).scrollIntoView();
  editor.view.dispatch(withPieces(tr, blocks));
}

const nodesOf = ({ schema }: Editor, blocks: readonly InPart[], id: string): Fragment =>
  Fragment.from(contentFor(blocks, id).map((block) => schema.nodeFromJSON(block)));

const withPieces = (tr: Transaction, blocks: readonly InPart[]): Transaction =>
  placementsOf({ blocks }).reduce((made, { asset }) => withOnTray(made, asset), tr);
