import { describe, expect, it } from 'vitest';
import { isInPart, type KeptPart } from './blocks/kept-part/schema.ts';
import { contentFor, isAsKept, keptFrom, partsOn, withPartChanged } from './kept-parts.ts';
import { mergePages } from './merge.ts';
import type { PageDoc } from './model.ts';
import { examplePage, examplePlacement, heading, paragraph, placed } from './testing.ts';
import { walkPage } from './walk.ts';

const KEPT = [heading('Opening hours', 3, 'h'), paragraph('From nine to five.', 'p')];
const AFTER = [
  heading('Opening hours', 3, 'h'),
  paragraph('From ten to four.', 'p'),
  placed(examplePlacement('column')),
];
const part = (id: string, content = contentFor(KEPT, id)): KeptPart => ({
  type: 'keptPart',
  attrs: { id, part: 'hours' },
  content,
});
const page = (...parts: KeptPart[]): PageDoc => examplePage(paragraph('Before'), ...parts);

describe('a kept part', () => {
  it('stands on a page under IDs of its place, twice as well, and is kept under its own again', () => {
    const twice = page(part('one'), part('two'));
    expect(
      twice.blocks
        .flatMap((block) => ('content' in block && block.type === 'keptPart' ? block.content : []))
        .map(({ attrs }) => attrs.id),
    ).toEqual(['one-h', 'one-p', 'two-h', 'two-p']);
    expect(keptFrom(part('two'))).toEqual(KEPT);
    expect([...partsOn(twice)]).toEqual(['hours']);
    expect([...partsOn(page({ ...part('one'), attrs: { id: 'one', part: '' } }))]).toEqual([]);
  });

  it('is as it is kept whatever its IDs are, and not where anything else differs', () => {
    expect(isAsKept(part('one', contentFor(KEPT, 'elsewhere')), KEPT)).toBe(true);
    expect(
      isAsKept(part('one', [heading('Opening hours', 2, 'h'), paragraph('From nine to five.', 'p')]), KEPT),
    ).toBe(false);
  });

  it('keeps the ID of a block that was added on a page', () => {
    const { content } = part('one');
    expect(
      keptFrom(part('one', [...content, paragraph('New.', 'new')])).map(({ attrs }) => attrs.id),
    ).toEqual(['h', 'p', 'new']);
  });

  it('changes where it is as it was kept, and stays where a page changed it for itself', () => {
    const own = part('two', [paragraph('Closed today.', 'x')]);
    const { page: next, changed, own: count } = withPartChanged(page(part('one'), own), 'hours', KEPT, AFTER);
    expect([changed, count]).toEqual([1, 1]);
    expect(next.blocks[1]).toEqual({ ...part('one'), content: contentFor(AFTER, 'one') });
    expect(next.blocks[2]).toBe(own);
    expect(next.tray).toEqual(['heron']);
    expect(withPartChanged(next, 'hours', AFTER, KEPT).page.blocks[1]).toEqual(part('one'));
  });

  it('leaves a page alone that has another, or has it so already', () => {
    const other = page({ ...part('one'), attrs: { id: 'one', part: 'other' } });
    expect(withPartChanged(other, 'hours', KEPT, AFTER).page).toBe(other);
    const already = page(part('one', contentFor(AFTER, 'one')));
    expect(withPartChanged(already, 'hours', KEPT, AFTER)).toEqual({ page: already, changed: 0, own: 0 });
  });

  it('that changes everywhere while somebody works on a page is put together with what they do', () => {
    const base = page(part('one'));
    const mine: PageDoc = { ...base, blocks: [paragraph('Mine', 'before'), ...base.blocks.slice(1)] };
    const { page: theirs } = withPartChanged(base, 'hours', KEPT, AFTER);
    const { page: merged, clashes } = mergePages(base, mine, theirs);
    expect(clashes).toEqual([]);
    expect(merged.blocks).toEqual([paragraph('Mine', 'before'), theirs.blocks[1]]);
  });

  it('set apart on this page, or given a block on it, has each block once where it changes everywhere meanwhile', () => {
    const own = part('one', KEPT);
    const base = page(own);
    const mine = page({ ...own, content: keptFrom(part('one', AFTER.filter(isInPart))) });
    const { page: theirs } = withPartChanged(
      base,
      'hours',
      KEPT,
      keptFrom(own).map((block, at) => AFTER[at] ?? block),
    );
    const { page: merged, clashes } = mergePages(base, mine, theirs);
    expect(clashes).toEqual([]);
    expect([...walkPage(merged)].map(({ attrs }) => attrs.id)).toEqual([
      ...new Set([...walkPage(mine)].map(({ attrs }) => attrs.id)),
    ]);
  });
});
