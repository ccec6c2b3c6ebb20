// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import { plainText } from '#core/page/inline.ts';
import { blank, examplePlacement, heading, paragraph, placed } from '#core/page/testing.ts';
import { blocksIn } from '#core/page/walk.ts';
import { changeBlock, movePlacement } from '../commands.ts';
import { isOfSheet } from '../rich-text.ts';
import { blocksOf, closeEditor, copied, editorOf, layNothingOut, pasting } from '../testing.ts';
import { TEXT_WAYS } from './kinds.ts';

layNothingOut();

afterEach(closeEditor);

/** "details(One [heron]) -": what stands in a block stands in brackets, an empty line is a dash. */
function shortOf(editor: Editor): string {
  const short = (block: Block): string => {
    if (block.type === 'placement') return `[${block.attrs.asset}]`;
    if (blocksIn(block).length > 0) return `${block.type}(${blocksIn(block).map(short).join(' ')})`;
    if (block.type === 'rule') return '---';
    if (block.type === 'codeBlock') return `{${plainText(block.content)}}`;
    return block.type === 'paragraph' || block.type === 'heading' ? plainText(block.content) || '-' : 'list';
  };
  return blocksOf(editor).map(short).join(' ');
}

const way = (words: string) => TEXT_WAYS.find((one) => one.words === words);
const heron = placed(examplePlacement('column', { id: 'heron' }));

function typed(editor: Editor, text: string): void {
  const { view } = editor;
  for (const letter of text) {
    const { from, to } = view.state.selection;
    const insert = () => view.state.tr.insertText(letter, from, to);
    if (!view.someProp('handleTextInput', (handle) => handle(view, from, to, letter, insert)))
      view.dispatch(insert());
  }
}

function pressed(editor: Editor, key: string): void {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
  editor.view.someProp('handleKeyDown', (handle) => handle(editor.view, event));
}

describe.each([
  ['folded section', 'details', { summary: 'What to bring' }],
  ['side box', 'sideBox', { title: 'Boots', position: 'beside-left', share: 33 }],
] as const)('a %s on the sheet', (words, type, said) => {
  it('is made of the lines that are chosen, headings among them, and becomes text again', () => {
    const editor = editorOf(heading('One'), paragraph('Two'), blank());
    editor.commands.setTextSelection({ from: 2, to: 8 });
    way(words)?.apply(editor);
    expect(shortOf(editor)).toBe(`${type}(One Two) -`);
    expect(way(words)?.isOn(editor)).toBe(true);
    way(words)?.apply(editor);
    expect(shortOf(editor)).toBe('One Two -');
  });

  it('keeps what its label says of it, as a step that undo takes back', () => {
    const editor = editorOf(paragraph('One'), blank());
    editor.commands.setTextSelection(2);
    way(words)?.apply(editor);
    const [block] = blocksOf(editor);
    changeBlock(editor, block?.attrs.id ?? '', said, 'what it says');
    expect(blocksOf(editor)[0]?.attrs).toMatchObject(said);
    editor.commands.undo();
    expect(blocksOf(editor)[0]?.attrs).not.toMatchObject(said);
  });

  it('takes pieces in and lets them out by keys', () => {
    const editor = editorOf(paragraph('One'), blank());
    editor.commands.setTextSelection(2);
    way(words)?.apply(editor);
    const inside = blocksOf(editor)[0];
    if (!inside) throw new Error('Nothing was set apart.');
    const other = editorOf(inside, heron, blank());
    movePlacement(other, 'heron', 'up');
    expect(shortOf(other)).toBe(`${type}(One [heron]) -`);
    movePlacement(other, 'heron', 'up');
    expect(shortOf(other)).toBe(`${type}([heron] One) -`);
    movePlacement(other, 'heron', 'up');
    expect(shortOf(other)).toBe(`[heron] ${type}(One) -`);
  });

  it('is copied and pasted whole, with what its label says and its pieces', () => {
    const editor = editorOf(paragraph('One'), blank());
    editor.commands.setTextSelection(2);
    way(words)?.apply(editor);
    changeBlock(editor, blocksOf(editor)[0]?.attrs.id ?? '', said, 'what it says');
    const html = copied(editor);
    expect(isOfSheet(html)).toBe(true);
    const other = editorOf(blank());
    other.view.pasteHTML(html, pasting());
    expect(shortOf(other)).toMatch(`${type}(One)`);
    expect(blocksOf(other)[0]?.attrs).toMatchObject(said);
  });
});

it.each([
  ['a side box', '<aside><h3>Boots</h3><ul><li>Two</li></ul></aside>', 'sideBox(list)'],
  ['a folded section', '<details><summary>Boots</summary><ul><li>Two</li></ul></details>', 'details(list)'],
  ['a quotation', '<blockquote><ul><li>Two</li></ul></blockquote>', 'quotation(list)'],
])('%s that begins with a list comes whole from another page', (_what, html, after) => {
  const editor = editorOf(blank());
  editor.view.pasteHTML(html, pasting());
  expect(shortOf(editor)).toMatch(after);
});

describe('code on the sheet', () => {
  it('is made by three ticks, keeps its breaks, and is left by Enter on an empty line', () => {
    const editor = editorOf(blank());
    typed(editor, '``` ');
    typed(editor, 'a');
    pressed(editor, 'Enter');
    typed(editor, '  b');
    pressed(editor, 'Enter');
    pressed(editor, 'Enter');
    expect(shortOf(editor)).toBe('{a\n  b} -');
    typed(editor, 'after');
    expect(shortOf(editor)).toBe('{a\n  b} after');
  });

  it('has no letters in bold, and becomes text again', () => {
    const editor = editorOf(paragraph('One'), blank());
    editor.commands.setTextSelection({ from: 1, to: 4 });
    editor.commands.toggleBold();
    way('code')?.apply(editor);
    expect(blocksOf(editor)[0]).toMatchObject({
      type: 'codeBlock',
      content: [{ type: 'text', text: 'One' }],
    });
    way('code')?.apply(editor);
    expect(shortOf(editor)).toBe('One -');
  });

  it('comes from another page as one', () => {
    const editor = editorOf(blank());
    editor.view.pasteHTML('<p>Before</p><pre>a\n  <b>b</b></pre>', pasting());
    expect(shortOf(editor)).toMatch('Before {a\n  b}');
  });
});

describe('a line across the page', () => {
  it('is made by three hyphens or by its way, and goes out as one', () => {
    const editor = editorOf(blank(), paragraph('Two'), blank());
    editor.commands.setTextSelection(1);
    typed(editor, '---');
    expect(shortOf(editor)).toMatch(/^(?:- )?--- /);
    const other = editorOf(paragraph('One'), paragraph('Two'), blank());
    other.commands.setTextSelection(2);
    way('line across')?.apply(other);
    expect(shortOf(other)).toBe('One --- Two -');
  });
});
