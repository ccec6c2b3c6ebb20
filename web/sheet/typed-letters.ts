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

function typed(view: EditorView, event: KeyboardEvent): boolean {
  const { selection } = view.state;
  const text = event.key;
  const isLetter = [...text].length === 1 && !event.ctrlKey && !event.metaKey && !view.composing;
  if (!isLetter || !view.editable || !(selection instanceof TextSelection)) return false;
  const insert = () => view.state.tr.insertText(text).scrollIntoView();
  const { from, to } = selection;
  // What becomes of certain letters, as of "1. " at the beginning of a line, is asked first.
  if (!view.someProp('handleTextInput', (handle) => handle(view, from, to, text, insert)))
    view.dispatch(insert());
  return true;
}
