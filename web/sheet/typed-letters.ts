import { Extension } from '@tiptap/core';
import { Plugin, TextSelection } from '@tiptap/pm/state';
import type { EditorView } from '@tiptap/pm/view';

/**
 * Letters that are typed go through the editor itself. Left to the browser's own editing, which the editor then reads back,
 * each costs 10 ms on a page of 300 pieces: it looks for places to stand among all that cannot be edited. What is composed
 * (input methods, dictation, touch keyboards) comes by other events, and stays the browser's.
 */
export const typedLetters = Extension.create({
  name: 'typedLetters',
  addProseMirrorPlugins() {
    return [new Plugin({ props: { handleKeyPress: typed } })];
  },
});

/**
 * Whether the caret stands where the editor knows it. After Home or a press the browser has moved it, and tells the editor a
 * moment later: what is typed between is the browser's, or it would stand where the caret was.
 */
function isWhereSeen(view: EditorView, { anchor, head }: TextSelection): boolean {
  const seen = view.dom.ownerDocument.getSelection();
  const { anchorNode, focusNode } = seen ?? {};
  if (!seen || !anchorNode || !focusNode) return false;
  if (!view.dom.contains(anchorNode) || !view.dom.contains(focusNode)) return false;
  return (
    view.posAtDOM(anchorNode, seen.anchorOffset) === anchor &&
    view.posAtDOM(focusNode, seen.focusOffset) === head
  );
}

function typed(view: EditorView, event: KeyboardEvent): boolean {
  const { selection } = view.state;
  const text = event.key;
  const isLetter = [...text].length === 1 && !event.ctrlKey && !event.metaKey && !view.composing;
  if (!isLetter || !view.editable || !(selection instanceof TextSelection)) return false;
  if (!isWhereSeen(view, selection)) return false;
  const insert = () => view.state.tr.insertText(text).scrollIntoView();
  const { from, to } = selection;
  // What becomes of certain letters, as of "1. " at the beginning of a line, is asked first.
  if (!view.someProp('handleTextInput', (handle) => handle(view, from, to, text, insert)))
    view.dispatch(insert());
  return true;
}
