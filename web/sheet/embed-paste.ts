import type { Editor } from '@tiptap/core';
import { closeHistory } from '@tiptap/pm/history';
import { NodeSelection, TextSelection } from '@tiptap/pm/state';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { forEachBlock } from './blocks/walk.ts';
import { afterSelection } from './commands.ts';
import { NAME_META } from './step-name.ts';

const LONGEST = 20_000;

/** Code as it stands in one line of text. */
export function asLine(code: string): string {
  return code.replace(/\s+/g, ' ').trim().slice(0, LONGEST);
}

/** Pasted code as a paragraph of plain text; what it says names it until it becomes an embed. */
export function insertAsText(editor: Editor, pasted: string): string {
  const text = asLine(pasted);
  const node = editor.schema.nodes.paragraph?.create(null, editor.schema.text(text));
  const { $from } = editor.state.selection;
  if (!node) return text;
  const tr = closeHistory(editor.state.tr).setMeta(NAME_META, 'pasting');
  const isBlank =
    $from.depth === 1 && $from.parent.type.name === 'paragraph' && $from.parent.content.size === 0;
  if (isBlank) tr.replaceWith($from.before(1), $from.after(1), node);
  else tr.insert(afterSelection(editor), node);
  const end = isBlank ? $from.before(1) + node.nodeSize - 1 : tr.mapping.map(afterSelection(editor)) - 1;
  tr.setSelection(TextSelection.near(tr.doc.resolve(end), -1));
  editor.view.dispatch(tr);
  return text;
}

/** A piece that pasted code became, and the caption that it came with where the piece has another. */
export interface PastedUse {
  readonly assetId: string;
  readonly caption: string | null;
}

/**
 * Puts embeds in the place of the paragraph with that text: one step, which undo takes back to the plain text. False
 * when the text is no longer there.
 */
export function becomeEmbeds(editor: Editor, text: string, uses: readonly PastedUse[]): boolean {
  const line = lineOf(editor, text);
  const type = editor.schema.nodes.placement;
  if (!line || !type) return false;
  const { at, size } = line;
  const nodes = uses.map(({ assetId, caption }) =>
    type.create({ ...newPlacement(crypto.randomUUID(), assetId), caption }),
  );
  const assetIds = uses.map(({ assetId }) => assetId);
  const tr = closeHistory(editor.state.tr)
    .setMeta(NAME_META, 'making an embed of it')
    .replaceWith(at, at + size, nodes);
  const tray: readonly string[] = tr.doc.attrs.tray;
  tr.setDocAttribute('tray', [...tray, ...assetIds.filter((id) => !tray.includes(id))]);
  // Whoever still stands where the text was is taken along; whoever writes elsewhere is left there.
  const { from } = editor.state.selection;
  if (from >= at && from <= at + size) tr.setSelection(NodeSelection.create(tr.doc, at)).scrollIntoView();
  editor.view.dispatch(closeHistory(tr));
  return true;
}

/** Takes a line of code off the sheet again that came with other text and embeds nothing. */
export function leaveOutLine(editor: Editor, text: string): void {
  const line = lineOf(editor, text);
  if (!line) return;
  const tr = closeHistory(editor.state.tr).setMeta(NAME_META, 'leaving code out');
  editor.view.dispatch(tr.delete(line.at, line.at + line.size));
}

/** Where the first paragraph of just that text stands. */
function lineOf(editor: Editor, text: string): { readonly at: number; readonly size: number } | null {
  let found: { readonly at: number; readonly size: number } | null = null;
  forEachBlock(editor.state.doc, (node, pos) => {
    if (!found && node.type.name === 'paragraph' && node.textContent === text)
      found = { at: pos, size: node.nodeSize };
  });
  return found;
}
