import type { Editor } from '@tiptap/core';
import { TextSelection } from '@tiptap/pm/state';

/** Puts the caret on a line of its own before the first block or after the last, which is made where none is there. */
export function writeAtEdge(editor: Editor, edge: 'start' | 'end'): void {
  const { doc, schema } = editor.state;
  const block = edge === 'start' ? doc.firstChild : doc.lastChild;
  const at = edge === 'start' ? 0 : doc.content.size;
  const tr = editor.state.tr;
  if (block?.isTextblock)
    tr.setSelection(TextSelection.create(doc, edge === 'start' ? 1 : doc.content.size - 1));
  else {
    const line = schema.nodes.paragraph?.create();
    if (!line) return;
    // Not a step of its own: an empty line does not go out, and what is typed into it is.
    tr.insert(at, line).setMeta('addToHistory', false);
    tr.setSelection(TextSelection.create(tr.doc, at + 1));
  }
  editor.view.dispatch(tr.scrollIntoView());
  editor.view.focus();
}

/** Where a press on the white of the sheet leads: above the first block or under the last one, or nowhere. */
export function edgeAt(editor: Editor, top: number): 'start' | 'end' | null {
  const { firstElementChild: first, lastElementChild: last } = editor.view.dom;
  if (!first || !last) return 'end';
  if (top < first.getBoundingClientRect().top) return 'start';
  return top > last.getBoundingClientRect().bottom ? 'end' : null;
}
