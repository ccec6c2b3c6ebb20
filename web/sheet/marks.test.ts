// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { Inline } from '#core/page/inline.ts';
import { PLAIN_RULES, paragraph } from '#core/page/testing.ts';
import { readRichText } from './rich-text.ts';
import { blocksOf, closeEditor, copied, editorOf, layNothingOut, pasting } from './testing.ts';

layNothingOut();
afterEach(closeEditor);

const wordsIn = (editor: ReturnType<typeof editorOf>): readonly Inline[] => {
  const [first] = blocksOf(editor);
  return first?.type === 'paragraph' ? (first.content ?? []) : [];
};

describe('marks on the sheet', () => {
  it.each([
    ['superscript', {}],
    ['subscript', {}],
    ['small', {}],
    ['code', {}],
    ['abbreviation', { title: 'Mean high water springs' }],
    ['language', { lang: 'de' }],
  ])('%s is said of words, kept by the page, and comes back from the clipboard', (type, attrs) => {
    const editor = editorOf(paragraph('MHWS is high'));
    editor.commands.setTextSelection({ from: 1, to: 5 });
    editor.commands.setMark(type, attrs);
    const mark = { type, ...(Object.keys(attrs).length > 0 ? { attrs } : {}) };
    const kept = [
      { type: 'text', text: 'MHWS', marks: [mark] },
      { type: 'text', text: ' is high' },
    ];
    expect(wordsIn(editor)).toEqual(kept);
    const html = copied(editor);
    const other = editorOf(paragraph(''.padEnd(1, 'x')));
    other.commands.selectAll();
    other.view.pasteHTML(html, pasting());
    expect(wordsIn(other)).toEqual(kept);
  });

  it('words are raised or lowered, not both', () => {
    const editor = editorOf(paragraph('H2O'));
    editor.commands.setTextSelection({ from: 2, to: 3 });
    editor.commands.setMark('superscript');
    editor.commands.setMark('subscript');
    expect(wordsIn(editor)[1]).toEqual({ type: 'text', text: '2', marks: [{ type: 'subscript' }] });
  });

  it('a page keeps no mark that says nothing', () => {
    const editor = editorOf(paragraph('MHWS'));
    editor.commands.selectAll();
    editor.commands.setMark('abbreviation', { title: ' ' });
    editor.commands.setMark('language', { lang: 'not a tag' });
    expect(wordsIn(editor)).toEqual([{ type: 'text', text: 'MHWS' }]);
  });

  it('the page’s own language is not said of every word that is pasted', () => {
    const read = (html: string) => readRichText(html, { ...PLAIN_RULES, language: 'en-GB' }).html;
    expect(read('<p><span lang="en-US">reed</span> <span lang="de">Ried</span></p>')).toBe(
      '<p>reed <span lang="de">Ried</span></p>',
    );
  });
});
