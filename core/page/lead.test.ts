import { describe, expect, it } from 'vitest';
import type { Block } from './blocks/block.ts';
import { shownWidth } from './layout.ts';
import { articleOf, firstSeen, leadOf, teaserOf, teaserRatio, withTeaserLike } from './lead.ts';
import { mergePages } from './merge.ts';
import type { PageDoc } from './model.ts';
import { examplePage, examplePiece, examplePlacement, PLAIN_RULES, paragraph, placed } from './testing.ts';
import { placementsOf, standingsOf } from './walk.ts';
import { cutsOfPage, writeFragment, writeListing, writeTeaser } from './write.ts';

const pieces = new Map(['heron', 'bittern'].map((id) => [id, examplePiece({ id, stem: id })] as const));
const context = {
  rules: PLAIN_RULES,
  pieces,
  addressOf: ({ fileName }: { readonly fileName: string }) => fileName,
};
const teaser = (asset = 'heron', words = 'Eleven males boom.'): Block => ({
  type: 'teaser',
  attrs: { id: 'teaser', title: '', words },
  content: [placed(examplePlacement('column', { id: 'teased', asset }))],
});
const pageOf = (...blocks: Block[]): PageDoc => ({
  ...examplePage(
    ...blocks,
    placed(examplePlacement('column', { id: 'first', asset: 'bittern' })),
    placed(examplePlacement('bleed', { id: 'second' })),
    paragraph('Words'),
  ),
  lead: 'second',
});

describe('the lead of a page', () => {
  it('is the placement that was chosen, as long as it stands in the article', () => {
    expect(leadOf(pageOf())?.id).toBe('second');
    expect(leadOf({ ...pageOf(), lead: 'gone' })).toBeNull();
    expect(leadOf({ ...pageOf(teaser()), lead: 'teased' })).toBeNull();
    expect(leadOf(examplePage())).toBeNull();
  });

  it('is loaded before all else, and without one the first piece is', () => {
    const eager = (page: PageDoc) =>
      /id="x"|src="([a-z]+)-[^"]*"[^>]*fetchpriority="high"/.exec(writeFragment(page, context))?.[1];
    expect(eager(pageOf(teaser()))).toBe('heron');
    const { lead: _, ...without } = pageOf(teaser());
    expect(firstSeen(without)?.id).toBe('first');
    expect(eager(without)).toBe('bittern');
  });

  it('is merged as other facts of the page are', () => {
    const base = pageOf();
    const mine = { ...base, lead: 'first' };
    const { lead: _, ...none } = base;
    expect(mergePages(base, mine, base).page.lead).toBe('first');
    expect(mergePages(base, base, mine).page.lead).toBe('first');
    expect(mergePages(base, none, base).page.lead).toBeUndefined();
    expect(mergePages(base, base, none).page.lead).toBeUndefined();
  });
});

describe('the teaser of a page', () => {
  it('is no part of the article', () => {
    const page = pageOf(teaser());
    expect(writeFragment(page, context)).toBe(writeFragment(articleOf(page), context));
    expect(placementsOf(articleOf(page)).map(({ id }) => id)).toEqual(['first', 'second']);
    expect(articleOf(pageOf())).toEqual(pageOf());
  });

  it('is written with a link to the page, its own cut, alt text and words', () => {
    const html = writeTeaser(pageOf(teaser('heron', 'Eleven & more')), context, 'index.html');
    expect(html).toMatch(/^<article class="teaser">\n<figure class="placed column"/);
    expect(html).toContain('<h2><a href="index.html">Bitterns</a></h2>\n<p>Eleven &amp; more</p>');
    expect(writeTeaser(pageOf(), context, 'index.html')).toBe('');
    expect(writeListing([html], { rules: PLAIN_RULES, styleSheet: 'style.css' })).toContain(
      '<html lang="en-GB">',
    );
  });

  it('has its files made with those of the page', () => {
    const names = (page: PageDoc) => new Set(cutsOfPage(page, context).map(({ assetId }) => assetId));
    expect(names(examplePage(teaser('bittern')))).toEqual(new Set(['bittern']));
  });

  it('stands as wide as a listing has room for', () => {
    const [standing] = standingsOf(examplePage(teaser()), context);
    if (!standing) throw new Error('There is no picture.');
    const widths = [390, 834, 1280, 2400].map((viewport) =>
      Math.round(shownWidth(PLAIN_RULES, standing.placement, standing.room, viewport)),
    );
    const most = Math.max(PLAIN_RULES.breakout, PLAIN_RULES.column);
    const gutters = 2 * PLAIN_RULES.gutter;
    expect(widths).toEqual([
      390 - gutters,
      Math.round((834 - gutters - 24) / 2),
      Math.round((Math.min(1280 - gutters, most) - 48) / 3),
      Math.round((most - 48) / 3),
    ]);
  });

  it('is made of a use of a piece, in place of one that is there', () => {
    const made = withTeaserLike(pageOf(teaser('bittern')), 'second', teaserRatio(PLAIN_RULES));
    expect(made.blocks.filter(({ type }) => type === 'teaser')).toHaveLength(1);
    expect(teaserOf(made)?.content[0]?.attrs).toMatchObject({ asset: 'heron', position: 'column' });
    expect(withTeaserLike(pageOf(), 'gone', null)).toEqual(pageOf());
  });
});
