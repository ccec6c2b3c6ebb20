import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Block } from './blocks/block.ts';
import { isFlowBlock } from './blocks/flow-block.ts';
import type { Paragraph } from './blocks/paragraph/schema.ts';
import type { SideBox } from './blocks/side-box/schema.ts';
import { withBroughtBack } from './bring-back.ts';
import { comparePages, type Difference } from './compare.ts';
import { plainText } from './inline.ts';
import type { PageDoc } from './model.ts';
import { anyPage } from './source/testing.ts';
import { blank, examplePage, examplePlacement, paragraph, placed } from './testing.ts';
import { walkPage, withBlocks, withoutBlock } from './walk.ts';

const ONE = paragraph('One', '1');
const TWO = paragraph('Two', '2');
const THREE = paragraph('Three', '3');
const base = examplePage(ONE, TWO, THREE);
const page = (...blocks: Block[]): PageDoc => ({ ...base, blocks });
const box = (...content: SideBox['content']): SideBox => ({
  type: 'sideBox',
  attrs: { id: 'box', title: 'Beside', position: 'beside-right', share: 40 },
  content,
});

const said = (before: PageDoc, after: PageDoc) =>
  comparePages(before, after).map(({ kind, id }) => `${kind} ${id}`);
const find = (before: PageDoc, after: PageDoc, id: string): Difference => {
  const found = comparePages(before, after).find((one) => one.id === id);
  if (!found) throw new Error(`Nothing differs in ${id}.`);
  return found;
};
const back = (now: PageDoc, then: PageDoc, id: string) => withBroughtBack(now, then, find(then, now, id));

describe('what differs between two states of a page', () => {
  it('is nothing in the same page', () => {
    expect(comparePages(base, structuredClone(base))).toEqual([]);
  });

  it.each([
    ['what was added, at its place', page(ONE, paragraph('New', 'n'), TWO, THREE), ['added n']],
    [
      'what was taken out, where it stood',
      page(paragraph('New', 'n'), TWO),
      ['removed 1', 'added n', 'removed 3'],
    ],
    ['one block that was moved past two others', page(TWO, THREE, ONE), ['moved 1']],
    [
      'what holds others, once with all in it',
      page(ONE, box(paragraph('In', 'in')), TWO, THREE),
      ['added box'],
    ],
    ['what was set apart from what stood there', page(ONE, box(TWO), THREE), ['added box', 'moved 2']],
    ['words of a block', page(ONE, paragraph('Two more', '2'), THREE), ['changed 2']],
  ])('is %s', (_, after, differences) => {
    expect(said(base, after)).toEqual(differences);
  });

  it('is told with the words before and after', () => {
    expect(find(base, page(ONE, paragraph('Two more', '2'), THREE), '2')).toMatchObject({
      words: { before: 'Two', after: 'Two more' },
      isSetOtherwise: false,
      settings: [],
      isMoved: false,
    });
  });

  it('is told apart: words, the way they are set, and settings', () => {
    const bold: Block = {
      ...TWO,
      content: [{ type: 'text', text: 'Two', marks: [{ type: 'bold' }] }],
    };
    expect(find(base, page(ONE, bold, THREE), '2')).toMatchObject({ words: null, isSetOtherwise: true });
    const [was, now] = [
      page(placed(examplePlacement('column'))),
      page(placed(examplePlacement('bleed', { caption: 'A heron', width: { unit: '%', value: 50 } }))),
    ];
    expect(find(was, now, 'one')).toMatchObject({
      words: { before: '', after: 'A heron' },
      settings: ['position', 'width'],
    });
    const decorative = page(placed(examplePlacement('column', { alt: { kind: 'decorative' } })));
    expect(find(was, decorative, 'one')).toMatchObject({ words: null, settings: ['alt'] });
  });

  it('is a block of another type, and one that was changed and moved as well', () => {
    const heading: Block = { type: 'heading', attrs: { id: '2', level: 2 }, content: TWO.content ?? [] };
    expect(find(base, page(heading, ONE, THREE), '2')).toMatchObject({
      kind: 'changed',
      isMoved: true,
      isSetOtherwise: true,
      settings: ['level'],
    });
  });

  it('is its title, its lead and its address', () => {
    const after = { ...base, title: 'Herons', lead: 'one', address: '/herons' };
    expect(comparePages(base, after)).toEqual([
      { kind: 'fact', id: 'title', before: 'Bitterns', after: 'Herons' },
      { kind: 'fact', id: 'lead', before: '', after: 'one' },
      { kind: 'fact', id: 'address', before: '', after: '/herons' },
    ]);
  });

  it('is no empty line', () => {
    expect(said(base, page(ONE, blank(), TWO, THREE))).toEqual([]);
    expect(said(page(blank(), ONE), page(ONE))).toEqual([]);
  });

  it('is found among 5,000 blocks, every second of which is another', () => {
    const many = (words: string) =>
      page(...Array.from({ length: 5000 }, (_, at) => paragraph(at % 2 ? words : 'Same', `${at}`)));
    expect(comparePages(many('One'), many('Two'))).toHaveLength(2500);
  });
});

describe('bringing back one difference', () => {
  const then = page(ONE, TWO, THREE);

  it('puts words back and leaves what else was done', () => {
    const now = page(paragraph('New', 'n'), ONE, paragraph('Two more', '2'));
    expect(back(now, then, '2')?.blocks).toEqual([paragraph('New', 'n'), ONE, TWO]);
    expect(back(now, then, '3')?.blocks).toEqual([
      paragraph('New', 'n'),
      ONE,
      paragraph('Two more', '2'),
      THREE,
    ]);
    expect(back(now, then, 'n')?.blocks).toEqual([ONE, paragraph('Two more', '2')]);
  });

  it('puts back what a box was made of when the box goes', () => {
    const now = page(ONE, box(paragraph('In', 'in'), TWO), THREE);
    expect(back(now, then, 'box')?.blocks).toEqual([ONE, TWO, THREE]);
  });

  it('takes what was moved out of a box back into it when the box returns', () => {
    const boxed = page(ONE, box(TWO), THREE);
    const now = page(paragraph('Two more', '2'), ONE, THREE);
    expect(back(now, boxed, 'box')?.blocks).toEqual([ONE, box(paragraph('Two more', '2')), THREE]);
  });

  it('puts back what stood in something that is gone as near as it may stand', () => {
    const boxed = page(ONE, box(TWO), THREE);
    const now = page(TWO, ONE, THREE);
    expect(back(now, boxed, '2')?.blocks).toEqual([ONE, TWO, THREE]);
  });

  it('puts a block behind what stayed before it, and not behind what was moved itself', () => {
    const empty: Block = { type: 'paragraph', attrs: { id: 'empty' }, content: [] };
    const before = page(ONE, TWO, empty, THREE);
    expect(back(page(empty, ONE, TWO), before, '3')?.blocks).toEqual([empty, ONE, TWO, THREE]);
  });

  it('is refused where it may not stand there', () => {
    const card: Block = { type: 'card', attrs: { id: 'card', link: '' }, content: [TWO] };
    const row = (id: string, ...content: (typeof card)[]): Block => ({
      type: 'cards',
      attrs: { id, perRow: 2, gap: 24 },
      content: content.flatMap((one) => (one.type === 'card' ? [one] : [])),
    });
    const before = page(row('a', card), row('b'));
    const after = page(row('b', card));
    expect(back(after, before, 'card')).toBeNull();
    expect(back(after, before, 'a')?.blocks).toEqual(before.blocks);
  });

  it('puts the piece back on the tray that lay there', () => {
    const before: PageDoc = { ...page(placed(examplePlacement('column'))), tray: ['heron', 'other'] };
    const after: PageDoc = { ...page(ONE), tray: ['reed'] };
    expect(back(after, before, 'one')?.tray).toEqual(['reed', 'heron']);
  });

  it('puts title and address back, and takes out what was not said', () => {
    const after = { ...base, title: 'Herons', address: '/herons' };
    expect(back(after, base, 'title')?.title).toBe('Bitterns');
    expect(back(after, base, 'address')).toEqual({ ...base, title: 'Herons' });
  });

  it('leads back to the earlier page whatever was done, one difference after the other', () => {
    fc.assert(
      fc.property(anyPage, fc.array(deed, { minLength: 1, maxLength: 6 }), (before, deeds) => {
        let now = deeds.reduce((state, one, at) => one(state, `new-${at}`), before);
        const most = comparePages(before, now).length * 3 + 10;
        for (let round = 0; round < most; round += 1) {
          const next = comparePages(before, now)
            .map((one) => withBroughtBack(now, before, one))
            .find((one) => one !== null);
          if (!next) break;
          now = next;
        }
        const lines = (state: PageDoc) =>
          withBlocks(state, (block) => (block.type === 'paragraph' && isBlank(block) ? null : block)).blocks;
        expect(lines(now)).toEqual(lines(before));
      }),
      { numRuns: 150 },
    );
  });
});

/** Empty lines are told nowhere, and so not brought back. */
const isBlank = ({ content }: Paragraph) => plainText(content).trim() === '';

/** Something that a person does to a page. */
type Deed = (page: PageDoc, id: string) => PageDoc;

const pick = <T>(some: readonly T[], at: number): T | undefined => some[at % Math.max(1, some.length)];

const deed: fc.Arbitrary<Deed> = fc
  .tuple(fc.constantFrom('take out', 'move', 'add', 'set apart', 'reword'), fc.nat(500), fc.nat(500))
  .map(([what, at, to]) => (state: PageDoc, id: string): PageDoc => {
    const some = [...walkPage(state)];
    const one = pick(some, at);
    if (!one) return state;
    switch (what) {
      case 'take out':
        return withoutBlock(state, one.attrs.id);
      case 'add':
        return {
          ...state,
          blocks: state.blocks.toSpliced(to % (state.blocks.length + 1), 0, paragraph('New', id)),
        };
      case 'reword':
        return withBlocks(state, (block) =>
          block.attrs.id === one.attrs.id && block.type === 'paragraph'
            ? paragraph('Reworded', one.attrs.id)
            : block,
        );
      case 'set apart': {
        const top = pick(state.blocks, at);
        if (!top || !isFlowBlock(top)) return state;
        const apart: SideBox = { ...box(top), attrs: { ...box().attrs, id } };
        return { ...state, blocks: state.blocks.map((block) => (block === top ? apart : block)) };
      }
      default: {
        if (!isFlowBlock(one)) return state;
        const rest = withoutBlock(state, one.attrs.id);
        return { ...rest, blocks: rest.blocks.toSpliced(to % (rest.blocks.length + 1), 0, one) };
      }
    }
  });
