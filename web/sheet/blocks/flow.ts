import type { Editor } from '@tiptap/core';
import { type Node, Slice } from '@tiptap/pm/model';
import { onSheet } from '../on-sheet.ts';
import type { TextWay } from './kind.ts';
import { holdsBlocks } from './walk.ts';

/** What may stand in a block that sets a part of the page apart, as the editor's schema says it. */
export const FLOW_CONTENT =
  '(paragraph | heading | bulletList | orderedList | placement | pictureOffer | quotation | codeBlock | rule | table)+';

/** Marks the HTML of a sheet's own block on the clipboard (`isOfSheet`). */
export const OF_SHEET = { 'data-of-sheet': '' };

/** Sets the chosen lines apart in a block of a kind, and lets them stand by themselves again. */
export const wrapWay = (words: string, type: string): TextWay => ({
  words,
  sort: 'around',
  isOn: (editor) => editor.isActive(type),
  apply: (editor: Editor) => {
    if (editor.isActive(type)) onSheet(editor).lift(type).run();
    else onSheet(editor).wrapIn(type).run();
  },
});

/**
 * What comes from elsewhere as the editor reads it is open at both ends, as a part of a text is. What sets a part of a page
 * apart came whole, and stays so.
 */
export function closedAround(slice: Slice): Slice {
  const { firstChild, lastChild } = slice.content;
  const isWhole = (node: Node | null) => node !== null && holdsBlocks(node);
  return new Slice(
    slice.content,
    isWhole(firstChild) ? 0 : slice.openStart,
    isWhole(lastChild) ? 0 : slice.openEnd,
  );
}

/** What stands in an element as the sheet writes it (`inside`) or as a page goes out: all of it but its head. */
export function withoutHead(element: HTMLElement, inside: string, head: string): HTMLElement {
  const own = element.querySelector<HTMLElement>(`:scope > ${inside}`);
  if (own) return own;
  const copy = element.cloneNode(true);
  if (!(copy instanceof HTMLElement)) return element;
  copy.querySelector(`:scope > ${head}`)?.remove();
  return copy;
}
