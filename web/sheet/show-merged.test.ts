// @vitest-environment jsdom
import { EditorState, TextSelection } from '@tiptap/pm/state';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import { anyPage } from '#core/page/source/testing.ts';
import { examplePage, paragraph } from '#core/page/testing.ts';
import { fromEditor, toEditor } from './page-json.ts';
import { PICTURE_OFFER } from './rich-text.ts';
import { makeInto, showMerged } from './show-merged.ts';
import { blocksOf, closeEditor, editorOf, layNothingOut } from './testing.ts';

layNothingOut();
afterEach(closeEditor);

const lines = (...words: readonly [string, string][]): Block[] =>
  words.map(([id, text]) => paragraph(text, id));
/** The words up to the caret in its block. */
const before = ({ state: { selection } }: ReturnType<typeof editorOf>) =>
  selection.$from.parent.textBetween(0, selection.$from.parentOffset);

describe('showing what others did', () => {
  const sheet = () => {
    const editor = editorOf(...lines(['1', 'One'], ['2', 'Two words'], ['3', 'Three']));
    const at = editor.state.doc.child(0).nodeSize + 1 + 'Two'.length;
    editor.view.dispatch(editor.state.tr.setSelection(TextSelection.create(editor.state.doc, at)));
    return editor;
  };

  it.each([
    ['a line before it is another', lines(['1', 'One more'], ['2', 'Two words'], ['3', 'Three'])],
    [
      'lines round it come, go and are moved',
      lines(['3', 'Three'], ['n', 'New'], ['2', 'Two words'], ['m', 'More']),
    ],
    ['words behind it in its line are others', lines(['1', 'One'], ['2', 'Two other words'], ['3', 'Three'])],
  ])('leaves the caret where it is when %s', (_, blocks) => {
    const editor = sheet();
    showMerged(editor, examplePage(...blocks));
    expect(blocksOf(editor)).toEqual(blocks);
    expect(before(editor)).toBe('Two');
  });

  it('is no step that undo takes back, and leaves the own ones', () => {
    const editor = sheet();
    editor.commands.insertContent(' small');
    showMerged(editor, examplePage(...lines(['1', 'One more'], ['2', 'Two small words'], ['3', 'Three'])));
    editor.commands.undo();
    expect(blocksOf(editor)).toEqual(lines(['1', 'One more'], ['2', 'Two words'], ['3', 'Three']));
  });

  it('leaves a picture that is offered where it stands, on the page and in a quotation', () => {
    const editor = sheet();
    const offer = { type: PICTURE_OFFER, attrs: { id: 'offer' } };
    const quotation = {
      type: 'quotation',
      attrs: { id: 'q' },
      content: [{ type: 'paragraph', attrs: { id: 'in' }, content: [{ type: 'text', text: 'Said' }] }],
    };
    const at = editor.state.doc.child(0).nodeSize;
    const nodes = [offer, { ...quotation, content: [...quotation.content, offer] }];
    editor.view.dispatch(
      editor.state.tr.insert(
        at,
        nodes.map((node) => editor.schema.nodeFromJSON(node)),
      ),
    );
    const page = fromEditor(editor.state.doc);
    showMerged(editor, { ...page, tray: ['heron'], blocks: [...page.blocks, paragraph('Theirs', 't')] });
    const types: string[] = [];
    editor.state.doc.descendants((node) => {
      if (node.isBlock) types.push(node.type.name);
    });
    expect(types).toEqual([
      'paragraph',
      PICTURE_OFFER,
      'quotation',
      'paragraph',
      PICTURE_OFFER,
      'paragraph',
      'paragraph',
      'paragraph',
    ]);
    expect(fromEditor(editor.state.doc).tray).toEqual(['heron']);
  });

  it('makes any page into any other', () => {
    const editor = editorOf();
    fc.assert(
      fc.property(anyPage, anyPage, (one, other) => {
        const [was, now] = [one, other].map((page) => editor.schema.nodeFromJSON(toEditor(page)));
        if (!was || !now) throw new Error('No page.');
        const { tr } = EditorState.create({ doc: was });
        makeInto(tr, now);
        expect(tr.doc.content.eq(now.content)).toBe(true);
      }),
      { numRuns: 200 },
    );
  });
});
