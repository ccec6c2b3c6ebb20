// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { blank, examplePage, examplePlacement, PLAIN_RULES, paragraph } from '#core/page/testing.ts';
import { ledger } from '../undo/ledger.ts';
import { connectSheet, makeEditor } from './editor.ts';
import { QUIET_HOOKS } from './hooks.ts';
import { layNothingOut } from './testing.ts';

layNothingOut();

let open: Editor | null = null;
afterEach(() => {
  open?.destroy();
  ledger.forget('test');
});

function editorOf(words: string, hooks = QUIET_HOOKS): Editor {
  const first = words === '' ? blank() : paragraph(words);
  const page = examplePage(first, { type: 'placement', attrs: examplePlacement('column') });
  open = makeEditor(page, { id: 'reserve', version: 1, rules: PLAIN_RULES }, 'test', true, hooks);
  document.body.append(open.view.dom);
  open.view.focus();
  return open;
}

/** Presses keys one after the other; answers how many the editor took for itself. */
function press(editor: Editor, keys: readonly string[], held: Partial<KeyboardEventInit> = {}): number {
  return keys.filter((key) => {
    const charCode = key.codePointAt(0) ?? 0;
    const how = { key, cancelable: true, bubbles: true, ...held };
    editor.view.dom.dispatchEvent(new KeyboardEvent('keydown', how));
    const event = new KeyboardEvent('keypress', { ...how, charCode });
    editor.view.dom.dispatchEvent(event);
    return event.defaultPrevented;
  }).length;
}

describe('letters that are typed', () => {
  it('stand where the cursor is, and one step back takes what was typed in a row', () => {
    const editor = editorOf('Eels');
    editor.commands.setTextSelection(5);
    expect(press(editor, [...' in May é'])).toBe(9);
    expect(editor.state.doc.firstChild?.textContent).toBe('Eels in May é');
    editor.commands.undo();
    expect(editor.state.doc.firstChild?.textContent).toBe('Eels');
  });

  it('take the place of what is chosen, in its own style', () => {
    const editor = editorOf('Eels in May');
    editor.commands.setTextSelection({ from: 1, to: 5 });
    editor.commands.toggleBold();
    press(editor, ['A']);
    expect(editor.getHTML()).toContain('<p><strong>A</strong> in May</p>');
  });

  it('make a list where they begin one', () => {
    const editor = editorOf('');
    editor.commands.setTextSelection(1);
    press(editor, ['1', '.', ' ', 'E']);
    expect(editor.getHTML()).toMatch(/^<ol><li><p>E<\/p><\/li><\/ol>/);
  });

  it('stand where the caret is, also before the browser has said that it moved', () => {
    const editor = editorOf('Eels');
    editor.commands.setTextSelection(5);
    const words = editor.view.dom.querySelector('p')?.firstChild;
    if (words) document.getSelection()?.collapse(words, 3);
    expect(press(editor, ['x'])).toBe(1);
    expect(editor.state.doc.firstChild?.textContent).toBe('Eelxs');
  });

  it('leave a key that is pressed right after a click to the words clicked on, not to those chosen before', () => {
    const onLinkWords = vi.fn();
    const editor = editorOf('Eels', { ...QUIET_HOOKS, onLinkWords });
    connectSheet(editor, { ...QUIET_HOOKS, onLinkWords });
    editor.commands.setTextSelection({ from: 1, to: 5 });
    press(editor, ['k'], { ctrlKey: true });
    expect(onLinkWords).toHaveBeenCalledTimes(1);
    const words = editor.view.dom.querySelector('p')?.firstChild;
    if (words) document.getSelection()?.collapse(words, 2);
    press(editor, ['k'], { ctrlKey: true });
    expect(onLinkWords).toHaveBeenCalledTimes(1);
  });

  it('are left to the browser where they are a command, or nothing can be written', () => {
    const editor = editorOf('Eels');
    editor.commands.setTextSelection(5);
    press(editor, ['b'], { ctrlKey: true });
    editor.setEditable(false);
    press(editor, ['x']);
    expect(editor.state.doc.firstChild?.textContent).toBe('Eels');
  });
});
