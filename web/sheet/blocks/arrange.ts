import type { Editor } from '@tiptap/core';
import type { Node, Schema } from '@tiptap/pm/model';
import { NodeSelection, Selection, type Transaction } from '@tiptap/pm/state';
import type { Ratio } from '#core/media/crop.ts';
import { newPlacement, type Placement } from '#core/page/blocks/placement/schema.ts';
import { afterSelection, named, withOnTray } from '../commands.ts';
import { forEachBlock } from './walk.ts';

/** What stands in one kind of arrangement alone, as a card in its row. */
export const PART_GROUP = 'part';

/** What is chosen on the sheet: whole blocks that follow one another in one holder. */
export interface Chosen {
  readonly blocks: readonly Node[];
  readonly from: number;
  readonly to: number;
  readonly holder: Node;
  /** The places of the first, and of what follows the last, in the holder. */
  readonly start: number;
  readonly end: number;
}

export function chosenBlocks(editor: Editor): Chosen | null {
  const { $from, $to } = editor.state.selection;
  const range = $from.blockRange($to);
  if (!range) return null;
  const { parent: holder, startIndex: start, endIndex: end, start: from, end: to } = range;
  return { blocks: holder.children.slice(start, end), from, to, holder, start, end };
}

/** The same choice without its first and last blocks, as far as they do not fit. */
export function trimmed(chosen: Chosen, isFit: (block: Node) => boolean): Chosen | null {
  const first = chosen.blocks.findIndex(isFit);
  if (first < 0) return null;
  const last = chosen.blocks.findLastIndex(isFit);
  const sizeOf = (blocks: readonly Node[]) => blocks.reduce((sum, { nodeSize }) => sum + nodeSize, 0);
  return {
    ...chosen,
    blocks: chosen.blocks.slice(first, last + 1),
    from: chosen.from + sizeOf(chosen.blocks.slice(0, first)),
    to: chosen.to - sizeOf(chosen.blocks.slice(last + 1)),
    start: chosen.start + first,
    end: chosen.start + last + 1,
  };
}

export const isEmptyLine = (block: Node) => block.isTextblock && block.content.size === 0;

/** What parts of an arrangement begin with: a piece each; without pieces a heading, and without headings a paragraph. */
export function beginOf(blocks: readonly Node[]): string | undefined {
  return ['placement', 'heading', 'paragraph'].find((name) => blocks.some(({ type }) => type.name === name));
}

/** Blocks in groups, each of which begins with one of a type; empty lines among them are left out. */
export function groupsOf(blocks: readonly Node[], begins: string | undefined): readonly (readonly Node[])[] {
  const said = blocks.filter((block) => !isEmptyLine(block));
  const groups: Node[][] = [];
  for (const block of said.length > 0 ? said : blocks) {
    const last = groups.at(-1);
    if (last && block.type.name !== begins) last.push(block);
    else groups.push([block]);
  }
  return groups;
}

/** Puts a block in the place of what is chosen, as a step of its own; false where it cannot stand there. */
export function putInPlace(
  editor: Editor,
  { holder, start, end, from, to }: Chosen,
  made: Node,
  name: string,
) {
  if (!holder.canReplaceWith(start, end, made.type)) return false;
  const tr = named(editor, name).replaceWith(from, to, made);
  editor.view.dispatch(tr.setSelection(insideOf(tr, from)));
  editor.view.focus();
  return true;
}

/** The selection in a block that was made at a place: its first words, or its first piece where it has none. */
export function insideOf(tr: Transaction, at: number): Selection {
  const made = tr.doc.nodeAt(at);
  const words = Selection.findFrom(tr.doc.resolve(at + 1), 1, true);
  if (made && words && words.from < at + made.nodeSize) return words;
  const first = made?.firstChild;
  return first && NodeSelection.isSelectable(first)
    ? NodeSelection.create(tr.doc, at + 1)
    : Selection.near(tr.doc.resolve(at));
}

/** New uses of pieces, each as it stands in an arrangement. */
export function usesOf(
  schema: Schema,
  assetIds: readonly string[],
  change: Partial<Placement>,
): readonly Node[] {
  return assetIds.map((id) =>
    schema.node('placement', { ...newPlacement(crypto.randomUUID(), id), position: 'column', ...change }),
  );
}

/** A use as it fills a column or a card, whose width is its own. */
export const inColumn = (piece: Node): Node =>
  piece.type.create({ ...piece.attrs, position: 'column', width: null, margins: null });

/** Puts an arrangement of pieces behind where the caret is, as a step of its own, with the pieces on the tray. */
export function putArranged(editor: Editor, made: Node, assetIds: readonly string[], name: string): void {
  const at = afterSelection(editor, made.type.name);
  const tr = named(editor, name).insert(at, made);
  for (const id of assetIds) withOnTray(tr, id);
  editor.view.dispatch(tr.setSelection(insideOf(tr, at)).scrollIntoView());
  editor.view.focus();
}

interface FoundBlock {
  readonly node: Node;
  readonly pos: number;
}

export function findBlock(editor: Editor, id: string): FoundBlock | null {
  let found: FoundBlock | null = null;
  forEachBlock(editor.state.doc, (node, pos) => {
    if (node.attrs.id === id) found = { node, pos };
  });
  return found;
}

/** The block of a type that the selection is in, innermost first. */
export function blockOfType(editor: Editor, type: string): FoundBlock | null {
  const { $from } = editor.state.selection;
  for (let depth = $from.depth; depth > 0; depth -= 1)
    if ($from.node(depth).type.name === type) return { node: $from.node(depth), pos: $from.before(depth) };
  return null;
}

/** Lets what stands in an arrangement, or in a part of one, stand by itself again. */
export function takeApart(editor: Editor, { node, pos }: FoundBlock, name: string): void {
  const inner = node.children.flatMap((child) =>
    child.type.isInGroup(PART_GROUP) ? child.children : [child],
  );
  const said = inner.filter((block) => !isEmptyLine(block));
  const tr = named(editor, name).replaceWith(pos, pos + node.nodeSize, said.length > 0 ? said : inner);
  tr.setSelection(Selection.near(tr.doc.resolve(Math.min(pos, tr.doc.content.size))));
  editor.view.dispatch(tr);
  editor.view.focus();
}

/** Cuts all pieces in an arrangement to one shape, or shows each in its own. */
export function shapePieces(editor: Editor, id: string, ratio: Ratio | null): void {
  const found = findBlock(editor, id);
  if (!found) return;
  const tr = named(editor, 'the shape of the pictures');
  found.node.descendants((node, pos) => {
    if (node.type.name === 'placement') tr.setNodeAttribute(found.pos + 1 + pos, 'ratio', ratio);
  });
  if (tr.docChanged) editor.view.dispatch(tr);
}
