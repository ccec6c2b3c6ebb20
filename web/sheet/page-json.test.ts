// @vitest-environment jsdom
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

describe('a page in the editor', () => {
  it('comes back as it went in', () => {
    expect(fromEditor(toEditor(page))).toEqual(page);
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
    expect(fromEditor({ ...json, content: [paragraph] }).blocks).toEqual([page.blocks[3]]);
  });

  it('drops a link that goes nowhere good, and keeps its words', () => {
    const json = toEditor(page);
    const bad = { type: 'link', attrs: { href: 'javascript:alert(1)' } };
    const paragraph = {
      type: 'paragraph',
      attrs: { id: 'last' },
      content: [{ type: 'text', text: 'x', marks: [bad] }],
    };
    expect(fromEditor({ ...json, content: [paragraph] }).blocks).toEqual([
      { type: 'paragraph', attrs: { id: 'last' }, content: [{ type: 'text', text: 'x' }] },
    ]);
  });

  it('of a shape that no page has is refused', () => {
    expect(() => fromEditor({ ...toEditor(page), content: [{ type: 'table' }] })).toThrow();
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
