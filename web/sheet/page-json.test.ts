// @vitest-environment jsdom
import type { JSONContent } from '@tiptap/core';
import { Fragment } from '@tiptap/pm/model';
import { describe, expect, it } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { examplePage } from '#core/page/testing.ts';
import { fromEditor, toEditor } from './page-json.ts';
import { editorOf } from './testing.ts';

const page: PageDoc = {
  ...emptyPage('Bitterns', [{ id: 'w', purpose: 'Lead', shape: 'any', leastWidth: 0, filledBy: null }]),
  tray: ['heron'],
  blocks: [
    { type: 'heading', attrs: { id: 'deep', level: 3 }, content: [{ type: 'text', text: 'Deep' }] },
    { type: 'placement', attrs: newPlacement('one', 'heron') },
    {
      type: 'orderedList',
      attrs: { id: 'list', start: 3 },
      content: [{ type: 'listItem', content: [{ type: 'paragraph' }] }],
    },
    {
      type: 'paragraph',
      attrs: { id: 'last' },
      content: [{ type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: '/a' } }] }],
    },
  ],
};

/** As the sheet reads what stands in it. */
const read = (json: JSONContent) => fromEditor(editorOf().schema.nodeFromJSON(json));

describe('a page in the editor', () => {
  it('comes back as it went in', () => {
    expect(read(toEditor(page))).toEqual(page);
  });

  it('is read anew only where it was written in', () => {
    const editor = editorOf(...page.blocks);
    const before = fromEditor(editor.state.doc);
    editor.commands.insertContentAt(1, 'Very ');
    const after = fromEditor(editor.state.doc);
    expect(after.blocks[0]).toMatchObject({ content: [{ text: 'Very Deep' }] });
    expect(after.blocks.slice(1).map((block, at) => block === before.blocks[at + 1])).toEqual([
      true,
      true,
      true,
    ]);
  });

  it('with the same ID twice is refused, whatever was read before', () => {
    const editor = editorOf(...page.blocks);
    fromEditor(editor.state.doc);
    const { doc } = editor.state;
    const twice = doc.copy(doc.content.append(Fragment.from(doc.firstChild)));
    expect(() => fromEditor(twice)).toThrow('same ID');
  });

  it('ends in a paragraph, so that there is somewhere to write', () => {
    expect(toEditor({ ...page, blocks: page.blocks.slice(0, 2) }).content?.at(-1)).toEqual({
      type: 'paragraph',
      attrs: { id: expect.any(String) },
    });
  });

  it('leaves away what the editor adds of its own', () => {
    const json = toEditor(page);
    const link = { type: 'link', attrs: { href: '/a', target: '_blank', rel: 'noopener', class: null } };
    const paragraph = {
      type: 'paragraph',
      attrs: { id: 'last' },
      content: [{ type: 'text', text: 'x', marks: [link] }],
    };
    expect(read({ ...json, content: [paragraph] }).blocks).toEqual([page.blocks[3]]);
  });

  it('drops a link that goes nowhere good, and keeps its words', () => {
    const json = toEditor(page);
    const bad = { type: 'link', attrs: { href: 'javascript:alert(1)' } };
    const paragraph = {
      type: 'paragraph',
      attrs: { id: 'last' },
      content: [{ type: 'text', text: 'x', marks: [bad] }],
    };
    expect(read({ ...json, content: [paragraph] }).blocks).toEqual([
      { type: 'paragraph', attrs: { id: 'last' }, content: [{ type: 'text', text: 'x' }] },
    ]);
  });

  it('of a shape that no page has is refused', () => {
    expect(() => read({ ...toEditor(page), content: [{ type: 'table' }] })).toThrow();
  });
});

describe('what holds others and is left with none', () => {
  const box: Block = {
    type: 'sideBox',
    attrs: { id: 'box', title: 'Beside', position: 'column', share: 40 },
    content: [],
  };
  const cards: Block = { type: 'cards', attrs: { id: 'cards', perRow: 2, gap: 24 }, content: [] };
  const card: Block = { type: 'card', attrs: { id: 'card', link: '' }, content: [] };

  it('has a line to write in where words may stand, and is nothing where only pieces may', () => {
    const page = examplePage(box, cards, {
      ...cards,
      attrs: { ...cards.attrs, id: 'more' },
      content: [card],
    });
    const { content } = toEditor(page);
    expect(content).toMatchObject([
      { type: 'sideBox', content: [{ type: 'paragraph' }] },
      { type: 'cards', attrs: { id: 'more' }, content: [{ type: 'card', content: [{ type: 'paragraph' }] }] },
      { type: 'paragraph' },
    ]);
    expect(() => editorOf(...page.blocks).state.doc.check()).not.toThrow();
  });
});
