// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import { plainText } from '#core/page/inline.ts';
import type { PageDoc } from '#core/page/model.ts';
import { blank, examplePage, PLAIN_RULES, paragraph } from '#core/page/testing.ts';
import { placementsOf } from '#core/page/walk.ts';
import { ledger } from '../undo/ledger.ts';
import { selectedPlacement } from './commands.ts';
import { makeEditor } from './editor.ts';
import { becomeEmbeds, insertAsText } from './embed-paste.ts';
import { QUIET_HOOKS } from './hooks.ts';
import { fromEditor } from './page-json.ts';
import { layNothingOut } from './testing.ts';

layNothingOut();

const CODE = '<iframe src="https://lanternreel.example/play/a"\n  width="560">\n</iframe>';
const ONE_LINE = '<iframe src="https://lanternreel.example/play/a" width="560"> </iframe>';

let open: Editor | null = null;
afterEach(() => {
  open?.destroy();
  ledger.forget('test');
});

function editorOf(page: PageDoc): Editor {
  open = makeEditor(page, { id: 'reserve', version: 1, rules: PLAIN_RULES }, 'test', true, QUIET_HOOKS);
  return open;
}

const uses = (...ids: readonly string[]) => ids.map((assetId) => ({ assetId, caption: null }));

/** Paragraphs by their words, embeds in brackets. */
function shortOf(editor: Editor): readonly string[] {
  return fromEditor(editor.state.doc).blocks.map((block) => {
    if (block.type === 'placement') return `[${block.attrs.asset}]`;
    return block.type === 'paragraph' ? plainText(block.content) : block.type;
  });
}

describe('pasted code', () => {
  it('stands as one line of text after the paragraph it was pasted in, with the cursor at its end', () => {
    const editor = editorOf(examplePage(paragraph('one'), paragraph('two')));
    editor.commands.setTextSelection(2);
    expect(insertAsText(editor, CODE)).toBe(ONE_LINE);
    expect(shortOf(editor)).toEqual(['one', ONE_LINE, 'two']);
    expect(editor.state.selection.$from.parent.textContent).toBe(ONE_LINE);
  });

  it('takes the place of an empty paragraph', () => {
    const editor = editorOf(examplePage(paragraph('one'), blank()));
    editor.commands.setTextSelection(6);
    insertAsText(editor, CODE);
    expect(shortOf(editor).filter(Boolean)).toEqual(['one', ONE_LINE]);
  });

  it('brings a caption along that the piece does not say itself, for this page', () => {
    const editor = editorOf(examplePage(paragraph('one')));
    editor.commands.setTextSelection(2);
    const text = insertAsText(editor, CODE);
    becomeEmbeds(editor, text, [
      { assetId: 'film', caption: 'Seen from the bank.' },
      { assetId: 'chart', caption: null },
    ]);
    const captions = placementsOf(fromEditor(editor.state.doc)).map(({ caption }) => caption);
    expect(captions).toEqual(['Seen from the bank.', null]);
  });

  it('becomes the embeds, which are on the tray, and the first is selected', () => {
    const editor = editorOf(examplePage(paragraph('one'), paragraph('two')));
    editor.commands.setTextSelection(2);
    const text = insertAsText(editor, CODE);
    expect(becomeEmbeds(editor, text, uses('film', 'chart'))).toBe(true);
    expect(shortOf(editor)).toEqual(['one', '[film]', '[chart]', 'two']);
    const page = fromEditor(editor.state.doc);
    expect(page.tray).toEqual(['film', 'chart']);
    expect(selectedPlacement(editor)?.asset).toBe('film');
    expect(new Set(placementsOf(page).map(({ id }) => id)).size).toBe(2);
  });

  it('is text again after one step back, and gone after two', () => {
    const editor = editorOf(examplePage(paragraph('one')));
    editor.commands.setTextSelection(2);
    becomeEmbeds(editor, insertAsText(editor, CODE), uses('film'));
    editor.commands.undo();
    expect(shortOf(editor)).toContain(ONE_LINE);
    expect(fromEditor(editor.state.doc).tray).toEqual([]);
    editor.commands.undo();
    expect(shortOf(editor)).not.toContain(ONE_LINE);
    editor.commands.redo();
    editor.commands.redo();
    expect(shortOf(editor)).toContain('[film]');
  });

  it('leaves whoever writes elsewhere where they are', () => {
    const editor = editorOf(examplePage(paragraph('one'), paragraph('two')));
    editor.commands.setTextSelection(2);
    const text = insertAsText(editor, CODE);
    editor.commands.setTextSelection(2);
    becomeEmbeds(editor, text, uses('film'));
    expect(selectedPlacement(editor)).toBeNull();
    expect(editor.state.selection.$from.parent.textContent).toBe('one');
  });

  it('that was changed or taken away meanwhile becomes nothing', () => {
    const editor = editorOf(examplePage(paragraph('one')));
    editor.commands.setTextSelection(2);
    const text = insertAsText(editor, CODE);
    editor.commands.undo();
    expect(becomeEmbeds(editor, text, uses('film'))).toBe(false);
    expect(placementsOf(fromEditor(editor.state.doc))).toEqual([]);
  });

  it('of a megabyte is cut, and what it stands as still names it', () => {
    const editor = editorOf(examplePage(paragraph('one')));
    const text = insertAsText(editor, 'x'.repeat(1_000_000));
    expect(text.length).toBe(20_000);
    expect(becomeEmbeds(editor, text, uses('film'))).toBe(true);
  });
});
