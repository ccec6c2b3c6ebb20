import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Block } from './blocks/block.ts';
import { isOneOf, mergePages } from './merge.ts';
import type { PageDoc } from './model.ts';
import { examplePage, examplePlacement, heading, paragraph, placed } from './testing.ts';

const base = examplePage(paragraph('One', '1'), paragraph('Two', '2'), paragraph('Three', '3'));
const withWords = (page: PageDoc, id: string, words: string): PageDoc => ({
  ...page,
  blocks: page.blocks.map((block) => (block.attrs.id === id ? paragraph(words, id) : block)),
});
const inOrder = (page: PageDoc, ...ids: readonly string[]): PageDoc => ({
  ...page,
  blocks: ids.map((id) => page.blocks.find(({ attrs }) => attrs.id === id) ?? paragraph(`New ${id}`, id)),
});
const idsOf = ({ blocks }: PageDoc) => blocks.map(({ attrs }) => attrs.id).join(' ');

describe('merging two states of a page', () => {
  it('takes each side where only it changed', () => {
    const merged = mergePages(base, withWords(base, '1', 'Mine'), withWords(base, '3', 'Theirs'));
    expect(merged.page.blocks).toEqual([
      paragraph('Mine', '1'),
      paragraph('Two', '2'),
      paragraph('Theirs', '3'),
    ]);
    expect(merged.clashes).toEqual([]);
  });

  it('keeps both where both changed the words of a block, theirs first and mine as a block of its own', () => {
    const merged = mergePages(base, withWords(base, '2', 'Mine'), withWords(base, '2', 'Theirs'));
    expect(merged.page.blocks).toEqual([
      paragraph('One', '1'),
      paragraph('Theirs', '2'),
      paragraph('Mine', '2-also'),
      paragraph('Three', '3'),
    ]);
    expect(merged.clashes).toMatchObject([{ kind: 'block', id: '2' }]);
  });

  it.each([
    ['mine', 'Mine'],
    ['theirs', 'Theirs'],
  ] as const)('goes on with %s where that is said, and keeps what each did elsewhere', (way, words) => {
    const mine = withWords(withWords(base, '2', 'Mine'), '1', 'Only mine');
    const theirs = withWords(withWords(base, '2', 'Theirs'), '3', 'Only theirs');
    expect(mergePages(base, mine, theirs, () => way).page.blocks).toEqual([
      paragraph('Only mine', '1'),
      paragraph(words, '2'),
      paragraph('Only theirs', '3'),
    ]);
  });

  it('tells where both gave another title, and takes the one that is chosen', () => {
    const [mine, theirs] = [
      { ...base, title: 'Mine' },
      { ...base, title: 'Theirs', address: '/theirs' },
    ];
    const merged = mergePages(base, mine, theirs);
    expect(merged.clashes).toEqual([{ kind: 'fact', id: 'title', mine: 'Mine', theirs: 'Theirs' }]);
    expect(merged.page).toMatchObject({ title: 'Mine', address: '/theirs' });
    expect(mergePages(base, mine, theirs, () => 'theirs').page.title).toBe('Theirs');
    expect(mergePages(base, mine, mine).clashes).toEqual([]);
  });

  it('puts a want together respect by respect, and tells where both changed the same one', () => {
    const want = { id: 'w', purpose: 'Lead', shape: 'any', leastWidth: 0, filledBy: null } as const;
    const [was, narrow, filled, otherwise] = [
      want,
      { ...want, shape: 'portrait', leastWidth: 400 } as const,
      { ...want, filledBy: 'heron' },
      { ...want, filledBy: 'bittern' },
    ].map((one) => ({ ...base, wants: [one] }));
    if (!was || !narrow || !filled || !otherwise) throw new Error('No page.');
    const both = mergePages(was, narrow, filled);
    expect(both.clashes).toEqual([]);
    expect(both.page.wants).toEqual([{ ...narrow.wants[0], filledBy: 'heron' }]);

    const clash = mergePages(was, otherwise, filled);
    expect(clash.clashes).toEqual([
      { kind: 'want', id: 'w', mine: otherwise.wants[0], theirs: filled.wants[0] },
    ]);
    expect(clash.clashes.every(isOneOf)).toBe(true);
    expect(clash.page.wants).toEqual(otherwise.wants);
    expect(mergePages(was, otherwise, filled, () => 'theirs').page.wants).toEqual(filled.wants);
    expect(mergePages(was, filled, filled).clashes).toEqual([]);
    // One that one side took away and the other changed stays, and is nobody's clash.
    expect(mergePages(was, base, filled)).toMatchObject({ clashes: [], page: { wants: filled.wants } });
  });

  it('tells where both made a teaser, of which a page has one, and keeps the one that is chosen', () => {
    const teaser = (id: string): Block => ({
      type: 'teaser',
      attrs: { id, title: `Teaser ${id}`, words: '' },
      content: [],
    });
    const [mine, theirs] = ['mine', 'theirs'].map((id) => ({
      ...base,
      blocks: [teaser(id), ...base.blocks],
    }));
    if (!mine || !theirs) throw new Error('No page.');
    const merged = mergePages(base, mine, theirs);
    expect(merged.clashes).toEqual([
      {
        kind: 'block',
        id: 'theirs',
        mine: { ...teaser('mine'), attrs: { ...teaser('mine').attrs, id: 'theirs' } },
        theirs: teaser('theirs'),
      },
    ]);
    expect(merged.page).toEqual(mine);
    expect(mergePages(base, mine, theirs, () => 'theirs').page).toEqual(theirs);
    expect(mergePages(base, mine, base).clashes).toEqual([]);
  });

  it('keeps what either side added, and drops what one side took away', () => {
    const mine = { ...base, blocks: [...base.blocks, paragraph('Mine', 'm')], tray: ['heron'] };
    const theirs = { ...base, blocks: base.blocks.slice(1), tray: ['bittern'] };
    const { page } = mergePages(base, mine, theirs);
    expect(page.blocks).toEqual([paragraph('Two', '2'), paragraph('Three', '3'), paragraph('Mine', 'm')]);
    expect([...page.tray].sort()).toEqual(['bittern', 'heron']);
  });

  it('keeps what one side took away and the other changed', () => {
    const theirs = { ...base, blocks: base.blocks.slice(1) };
    expect(mergePages(base, withWords(base, '1', 'Mine'), theirs).page.blocks).toContainEqual(
      paragraph('Mine', '1'),
    );
    expect(mergePages(base, theirs, withWords(base, '1', 'Theirs')).page.blocks).toContainEqual(
      paragraph('Theirs', '1'),
    );
  });

  it.each([
    ['mine alone', '3 1 2', '1 2 3', '3 1 2'],
    ['theirs alone', '1 2 3', '2 1 3', '2 1 3'],
    ['each another', '1 3 2', '2 1 3', '2 1 3'],
    ['the same to another place', '1 3 2', '2 1 3', '2 1 3'],
    ['and added at the same place, theirs first', '1 m 2 3', '1 t 2 3', '1 t m 2 3'],
    ['and added before all', 'm 1 2 3', 't 1 2 3', 't m 1 2 3'],
    ['and added behind what they took out', '1 2 m 3', '1 3', '1 m 3'],
  ])('moved blocks: %s', (_, mine, theirs, after) => {
    const merged = mergePages(base, inOrder(base, ...mine.split(' ')), inOrder(base, ...theirs.split(' ')));
    expect(idsOf(merged.page)).toBe(after);
    expect(merged.clashes).toEqual([]);
  });

  it('puts a move by one and a change by the other together', () => {
    const moved = inOrder(base, '3', '1', '2');
    expect(mergePages(base, moved, withWords(base, '3', 'Theirs')).page.blocks).toEqual([
      paragraph('Theirs', '3'),
      paragraph('One', '1'),
      paragraph('Two', '2'),
    ]);
  });

  it('puts other attributes of the same piece together, and keeps both of the same one', () => {
    const at = (change: Parameters<typeof examplePlacement>[1]) =>
      examplePage(placed(examplePlacement('column', change)));
    const wide = at({ width: { unit: '%', value: 80 } });
    const told = at({ caption: 'Theirs' });
    expect(mergePages(at({}), wide, told)).toMatchObject({
      page: { blocks: [{ attrs: { width: { unit: '%', value: 80 }, caption: 'Theirs' } }] },
      clashes: [],
    });
    expect(mergePages(at({}), at({ caption: 'Mine' }), told)).toMatchObject({
      page: { blocks: [{ attrs: { id: 'one', caption: 'Theirs' } }, { attrs: { caption: 'Mine' } }] },
      clashes: [{ kind: 'block', id: 'one' }],
    });
  });

  it('puts the level of a heading and its words together', () => {
    const page = (words: string, level: 2 | 3) => examplePage(heading(words, level, 'h'));
    expect(mergePages(page('Reeds', 2), page('Reeds', 3), page('Reeds and water', 2)).page.blocks).toEqual([
      heading('Reeds and water', 3, 'h'),
    ]);
  });

  it('loses nothing of either side that the other did not take away, and names no block twice', () => {
    const ids = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 8 });
    const side = fc.array(fc.tuple(fc.constantFrom(...'abcdefgh'), fc.constantFrom('', 'x', 'y')), {
      maxLength: 8,
    });
    const pageOf = (blocks: readonly (readonly [string, string])[]): PageDoc =>
      examplePage(...[...new Map(blocks)].map(([id, words]): Block => paragraph(`${id}${words}`, id)));
    fc.assert(
      fc.property(ids, side, side, (b, m, t) => {
        const was = pageOf(b.map((id) => [id, '']));
        const [mine, theirs] = [pageOf(m), pageOf(t)];
        const { page } = mergePages(was, mine, theirs);
        const all = page.blocks.map(({ attrs }) => attrs.id);
        expect(new Set(all).size).toBe(all.length);
        const said = JSON.stringify(page.blocks);
        for (const { blocks } of [mine, theirs])
          for (const block of blocks) {
            const before = was.blocks.find(({ attrs }) => attrs.id === block.attrs.id);
            const isChanged = JSON.stringify(before) !== JSON.stringify(block);
            if (isChanged && block.type === 'paragraph')
              expect(said).toContain(JSON.stringify(block.content?.[0]));
          }
        expect(mergePages(was, mine, was).page.blocks).toEqual(mine.blocks);
        expect(mergePages(was, was, theirs).page.blocks).toEqual(theirs.blocks);
      }),
    );
  });
});
