import { Extension } from '@tiptap/core';
import { Plugin } from '@tiptap/pm/state';
import type { EditorView } from '@tiptap/pm/view';

/**
 * The caret is read before each key and after each press. After a press or Home the browser has moved it, and tells the
 * editor a moment later: a key that comes between would do its work where the caret was, and an editor that has been left
 * by then never hears it at all, so that a piece of the tray was put where the caret had been. The news that is still under
 * way is brought at once, by the event that would bring it; where nothing is new the editor sees so and does nothing.
 */
export const caretFirst = Extension.create({
  name: 'caretFirst',
  addProseMirrorPlugins() {
    return [new Plugin({ props: { handleDOMEvents: { keydown: readCaret, click: readCaret } } })];
  },
});

function readCaret(view: EditorView): false {
  // Reading what is being composed would end it.
  if (!view.composing) view.dom.ownerDocument.dispatchEvent(new Event('selectionchange'));
  return false;
}
