// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import { blank, examplePiece, examplePlacement, PLAIN_RULES, paragraph, placed } from '#core/page/testing.ts';
import { findOnSheet, replaceFound } from './find.ts';
import { blocksOf, closeEditor, editorOf, layNothingOut } from './testing.ts';

layNothingOut();

afterEach(closeEditor);

const linked: Block = {
  type: 'paragraph',
  attrs: { id: 'linked' },
  content: [
    { type: 'text', text: 'See the ' },
    { type: 'text', text: 'heron', marks: [{ type: 'link', attrs: { href: '/heron' } }] },
    { type: 'text', text: ' today: a heron' },
  ],
};
const box: Block = {
  type: 'sideBox',
  attrs: { id: 'box', title: 'Heron and heron', position: 'column', share: 40 },
  content: [paragraph('No bird', 'in-box')],
};
const pieces = new Map([['heron', examplePiece()]]);
const found = (editor: ReturnType<typeof editorOf>, sought: string) =>
  findOnSheet(editor.state.doc, sought, pieces, PLAIN_RULES);

describe('words found on the sheet', () => {
  it('stand in the text, in what a block says besides, and in what pieces say', () => {
    const editor = editorOf(linked, box, placed(examplePlacement('column')), blank());
    expect(found(editor, 'heron').map((one) => (one.kind === 'text' ? 'text' : one.where))).toEqual([
      'text',
      'text',
      'the title of a side box',
      'title',
      'alt text',
    ]);
  });

  it('are replaced as one step, with their links, and what pieces say is left', () => {
    const editor = editorOf(linked, box, placed(examplePlacement('column')), blank());
    expect(replaceFound(editor, found(editor, 'heron'), 'heron', 'bittern')).toBe(3);
    const [text, aside] = blocksOf(editor);
    expect(text?.type === 'paragraph' && text.content).toEqual([
      { type: 'text', text: 'See the ' },
      { type: 'text', text: 'bittern', marks: [{ type: 'link', attrs: { href: '/heron' } }] },
      { type: 'text', text: ' today: a bittern' },
    ]);
    expect(aside).toMatchObject({ attrs: { title: 'Bittern and bittern' } });
    expect(found(editor, 'heron').every(({ kind }) => kind === 'piece')).toBe(true);
    editor.commands.undo();
    expect(found(editor, 'heron')).toHaveLength(5);
  });

  it('are replaced one by one, also by nothing', () => {
    const editor = editorOf(linked, blank());
    expect(replaceFound(editor, found(editor, ' today').slice(0, 1), ' today', '')).toBe(1);
    expect(editor.getText()).toContain('heron: a heron');
    expect(replaceFound(editor, [], 'heron', 'bittern')).toBe(0);
  });
});
