// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import { blank, examplePage, examplePlacement, PLAIN_RULES, paragraph } from '#core/page/testing.ts';
import { ledger } from '../undo/ledger.ts';
import { makeEditor } from './editor.ts';
import { layNothingOut, NO_HOOKS } from './testing.ts';

layNothingOut();

let open: Editor | null = null;
afterEach(() => {
  open?.destroy();
  ledger.forget('test');
});

function editorOf(words: string): Editor {
  const first = words === '' ? blank() : paragraph(words);
  const page = examplePage(first, { type: 'placement', attrs: examplePlacement('column') });
  open = makeEditor(page, { id: 'reserve', version: 1, rules: PLAIN_RULES }, 'test', true, NO_HOOKS);
  document.body.append(open.view.dom);
  open.view.focus();
  return open;
}

/** Presses keys one after the other; answers how many the editor took for itself. */
function press(editor: Editor, keys: readonly string[], held: Partial<KeyboardEventInit> = {}): number {
  return keys.filter((key) => {
    const charCode = key.codePointAt(0) ?? 0;
    const event = new KeyboardEvent('keypress', { key, charCode, cancelable: true, bubbles: true, ...held });
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

  it('are left to the browser while the caret stands elsewhere than the editor knows', () => {
    const editor = editorOf('Eels');
    editor.commands.setTextSelection(5);
    const words = editor.view.dom.querySelector('p')?.firstChild;
    if (words) document.getSelection()?.collapse(words, 0);
    expect(press(editor, ['x'])).toBe(0);
    expect(editor.state.doc.firstChild?.textContent).toBe('Eels');
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
