import type { ChainedCommands, Editor } from '@tiptap/core';

/**
 * Commands with the hand on the sheet at once. The library's own `focus` comes a frame later, and what is typed before
 * then goes where the hand was.
 */
export function onSheet(editor: Editor): ChainedCommands {
  editor.view.focus();
  return editor.chain();
}
