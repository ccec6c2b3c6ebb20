import type { Editor } from '@tiptap/core';
import type { Node, Schema } from '@tiptap/pm/model';
import { Selection } from '@tiptap/pm/state';
import { COLUMN_COUNTS } from '#core/page/blocks/columns/schema.ts';
import { isFlowBlock } from '#core/page/blocks/flow-block.ts';
import { named } from '../../commands.ts';
import { beginOf, chosenBlocks, findBlock, groupsOf, inColumn, isEmptyLine, putInPlace } from '../arrange.ts';
import type { Gathered } from '../gathered.ts';

export const MOST_COLUMNS = COLUMN_COUNTS.at(-1) ?? 4;

/** Shares of columns that are made: as wide as each other. */
const EVEN = 50;

/**
 * Makes columns of the chosen blocks: one for each of two to four, or for each piece with the words behind it, or each
 * heading; else half of them in each of two. A single block gets an empty column beside it. False where something among
 * them cannot stand in one.
 */
export function makeColumns(editor: Editor): boolean {
  const chosen = chosenBlocks(editor);
  if (!chosen?.blocks.every(({ type }) => isFlowBlock({ type: type.name }))) return false;
  const made = columnsNode(editor.schema, split(chosen.blocks));
  return putInPlace(editor, chosen, made, 'making columns');
}

function split(blocks: readonly Node[]): readonly (readonly Node[])[] {
  const said = blocks.filter((block) => !isEmptyLine(block));
  if (said.length < 2) return [said, []];
  const fits = (groups: readonly unknown[]) => groups.length >= 2 && groups.length <= MOST_COLUMNS;
  if (fits(said)) return said.map((block) => [block]);
  const begins = beginOf(said);
  const isFromStart = said[0]?.type.name === begins;
  const groups = isFromStart && begins !== 'paragraph' ? groupsOf(said, begins) : [];
  if (fits(groups)) return groups;
  const half = Math.ceil(said.length / 2);
  return [said.slice(0, half), said.slice(half)];
}

/** Makes columns of two to four gathered pieces, one in each; false for fewer or more. */
export function columnsOfPieces(editor: Editor, { pieces, put }: Gathered): boolean {
  if (pieces.length < 2 || pieces.length > MOST_COLUMNS) return false;
  const { schema } = editor.state;
  const parts = pieces.map((piece) => [inColumn(piece), schema.node('paragraph')]);
  put(columnsNode(schema, parts), 'making columns');
  return true;
}

function columnsNode(schema: Schema, parts: readonly (readonly Node[])[]): Node {
  const columns = parts.map((part) =>
    schema.node('column', { share: EVEN }, part.length > 0 ? [...part] : [schema.node('paragraph')]),
  );
  return schema.node('columns', null, columns);
}

/** An empty column behind the last, as wide as the others are in the middle. */
export function addColumn(editor: Editor, id: string): void {
  const found = findBlock(editor, id);
  if (!found || found.node.childCount >= MOST_COLUMNS) return;
  const { schema } = editor.state;
  const shares = found.node.children.map(({ attrs }) => Number(attrs.share));
  const share = Math.max(1, Math.round(shares.reduce((sum, one) => sum + one, 0) / shares.length));
  const at = found.pos + found.node.nodeSize - 1;
  const column = schema.node('column', { share }, [schema.node('paragraph')]);
  const tr = named(editor, 'adding a column').insert(at, column);
  tr.setSelection(Selection.near(tr.doc.resolve(at + 2)));
  editor.view.dispatch(tr);
  editor.view.focus();
}

/** Takes a column out; what stood in it stands in the one beside it, and the last two become what they hold. */
export function removeColumn(editor: Editor, id: string): void {
  const found = findBlock(editor, id);
  if (!found) return;
  const $pos = editor.state.doc.resolve(found.pos);
  const row = $pos.parent;
  const at = $pos.index();
  const said = (column: Node) => column.children.filter((block) => !isEmptyLine(block));
  const tr = named(editor, 'removing a column');
  const start = $pos.before();
  if (row.childCount <= 2) {
    const all = row.children.flatMap(said);
    tr.replaceWith(start, start + row.nodeSize, all.length > 0 ? all : [editor.schema.node('paragraph')]);
  } else {
    const into = at > 0 ? at - 1 : 1;
    const left = row.children.flatMap((column, place) => {
      if (place === at) return [];
      if (place !== into) return [column];
      const inner = at > 0 ? [...said(column), ...said(found.node)] : [...said(found.node), ...said(column)];
      return [column.type.create(column.attrs, inner.length > 0 ? inner : column.content)];
    });
    tr.replaceWith(start, start + row.nodeSize, row.type.create(row.attrs, left));
  }
  tr.setSelection(Selection.near(tr.doc.resolve(Math.min(start + 1, tr.doc.content.size))));
  editor.view.dispatch(tr);
  editor.view.focus();
}

/** Gives the columns of a row their shares, in order. */
export function shareColumns(editor: Editor, id: string, shares: readonly number[]): void {
  setOnColumns(editor, id, 'share', shares, 'the widths of the columns');
}

/** Says which column comes first on a phone; the first where `at` is 0. */
export function leadColumn(editor: Editor, id: string, at: number): void {
  const found = findBlock(editor, id);
  const leads = found?.node.children.map((_column, place) => at > 0 && place === at) ?? [];
  setOnColumns(editor, id, 'leads', leads, 'which column comes first on a phone');
}

function setOnColumns(
  editor: Editor,
  id: string,
  attribute: string,
  values: readonly unknown[],
  name: string,
) {
  const found = findBlock(editor, id);
  if (!found) return;
  const tr = named(editor, name);
  found.node.forEach((column, offset, at) => {
    if (values[at] !== undefined && column.attrs[attribute] !== values[at])
      tr.setNodeAttribute(found.pos + 1 + offset, attribute, values[at]);
  });
  if (tr.docChanged) editor.view.dispatch(tr);
}
