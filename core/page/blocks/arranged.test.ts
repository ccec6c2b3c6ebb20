import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { OVER_PLACES } from '../../media/over-words.ts';
import { proofInput } from '../../proof/input.ts';
import { applyRemedy, proofPage } from '../../proof/proof.ts';
import { shownWidth } from '../layout.ts';
import { pageScript } from '../on-page.ts';
import {
  A_DAY,
  examplePage,
  examplePiece,
  examplePlacement,
  heading,
  PLAIN_RULES,
  paragraph,
  placed,
} from '../testing.ts';
import { standingsOf } from '../walk.ts';
import { writeFragment } from '../write.ts';
import { bannerAt } from './banner/judged.ts';
import { type Banner, USUAL_BANNER } from './banner/schema.ts';
import { setBanner } from './banner/set.ts';
import { shapeNear } from './before-after/shapes.ts';
import type { Block } from './block.ts';
import type { Column } from './columns/schema.ts';
import { rowParts } from './gallery/rows.ts';
import { GALLERY_PER_ROW, type Gallery, galleryPerRow } from './gallery/schema.ts';

const SHAPES = {
  wide: [3000, 1000],
  upright: [2000, 3000],
  square: [2000, 2000],
  usual: [3000, 2000],
} as const;
const pieces = new Map(
  Object.entries(SHAPES).map(([id, [width, height]]) => [
    id,
    examplePiece({ id, stem: id, size: { width, height } }),
  ]),
);
const context = { rules: PLAIN_RULES, pieces };
const use = (asset: string, change = {}) =>
  placed(examplePlacement('beside-left', { id: `use-${asset}`, asset, ...change }));
const galleryOf = (perRow: Gallery['attrs']['perRow'], ...content: Gallery['content']): Gallery => ({
  type: 'gallery',
  attrs: { id: 'gallery', perRow, gap: 8, caption: '' },
  content,
});
const widthsAt = (viewport: number, ...blocks: Block[]) =>
  standingsOf(examplePage(...blocks), context).map(({ placement, room }) =>
    shownWidth(PLAIN_RULES, placement, room, viewport),
  );

describe('the rows of a gallery', () => {
  it('are of one height, fill the width and never more than it', () => {
    const aspect = fc.double({ min: 0.2, max: 5, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(aspect, { minLength: 1, maxLength: 24 }),
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 0, max: 80 }),
        (aspects, perRow, gap) => {
          const width = 960;
          const parts = rowParts(aspects, perRow, gap);
          expect(parts).toHaveLength(aspects.length);
          const widths = parts.map(({ share, gaps }) => (width - gaps) * share);
          for (let at = 0; at < aspects.length; at += perRow) {
            const row = widths.slice(at, at + perRow);
            const used = row.reduce((sum, one) => sum + one, 0) + gap * (row.length - 1);
            expect(used).toBeLessThanOrEqual(width + 1e-6);
            if (row.length === perRow) expect(used).toBeGreaterThan(width - 1);
            const heights = row.map((one, place) => one / (aspects[at + place] ?? 1));
            expect(Math.max(...heights) - Math.min(...heights)).toBeLessThan(0.1);
          }
        },
      ),
    );
  });

  it('keep a last row that is not full as high as the one before it', () => {
    const [one, , , last] = rowParts([1, 1, 1, 1], 3, 10);
    expect(last).toEqual(one);
    // Wider than the row before it, it has a height of its own, and still fits.
    expect(rowParts([1, 1, 1, 4], 3, 10)[3]).toEqual({ share: 1, gaps: 0 });
  });

  it('decide how wide each picture is shown, whatever side and width it would have elsewhere', () => {
    const row = galleryOf(
      3,
      use('wide'),
      use('upright', { margins: { top: 9, right: 9, bottom: 9, left: 9 } }),
      use('square'),
    );
    const [wide = 0, upright = 0, square = 0] = widthsAt(1280, row);
    expect(wide + upright + square + 16).toBeCloseTo(PLAIN_RULES.column, 0);
    expect(wide / 3).toBeCloseTo(upright / (2 / 3), 0);
    expect(wide / 3).toBeCloseTo(square, 0);
    // Two in a row on a phone.
    const [first = 0, second = 0] = widthsAt(390, row);
    expect(first + second + 8).toBeCloseTo(390 - 2 * PLAIN_RULES.gutter, 0);
  });

  it('are even where all are cut to one shape', () => {
    const ratio = { across: 4, down: 3 };
    const row = galleryOf(3, use('wide', { ratio }), use('upright', { ratio }), use('square', { ratio }));
    const widths = widthsAt(1280, row).map(Math.round);
    expect(new Set(widths).size).toBe(1);
  });

  it('close over a picture that is gone', () => {
    const row = galleryOf(3, use('wide'), use('gone'), use('square'));
    const html = writeFragment(examplePage(row), { ...context, addressOf: ({ fileName }) => fileName });
    expect(html.match(/<li /g)).toHaveLength(2);
    const [wide = 0, , square = 0] = widthsAt(1280, row);
    expect(wide + square + 8).toBeCloseTo(PLAIN_RULES.column, 0);
  });

  it('are of as many as leave none alone, where that can be', () => {
    for (let count = 1; count <= 30; count += 1) {
      const perRow = galleryPerRow(count);
      expect(GALLERY_PER_ROW).toContain(perRow);
      if (count > perRow && count !== 13 && count !== 25)
        expect(`${count}: ${count % perRow}`).not.toMatch(/: 1$/);
    }
  });
});

describe('columns', () => {
  const columnsOf = (shares: readonly number[], gap = 20): Block => ({
    type: 'columns',
    attrs: { id: 'columns', gap },
    content: shares.map((share, at) => ({
      type: 'column',
      attrs: { id: `column-${at}`, share, leads: at === 1 },
      content: [
        placed(examplePlacement('column', { id: `in-${at}`, asset: 'usual' })),
        paragraph('Words', `words-${at}`),
      ],
    })),
  });

  it('have their shares of what the gaps leave, and the whole on a phone', () => {
    const [left = 0, right = 0] = widthsAt(1280, columnsOf([60, 40]));
    expect(left).toBeCloseTo((PLAIN_RULES.column - 20) * 0.6, 3);
    expect(right).toBeCloseTo((PLAIN_RULES.column - 20) * 0.4, 3);
    const phone = 390 - 2 * PLAIN_RULES.gutter;
    expect(widthsAt(390, columnsOf([60, 40]))).toEqual([phone, phone]);
  });

  it('keep the place of one that is empty, and are nothing where all are', () => {
    const empty = (id: string): Column => ({
      type: 'column',
      attrs: { id, share: 50, leads: false },
      content: [],
    });
    const said = { ...empty('said'), content: [paragraph('Words')] };
    const html = (content: Column[]) =>
      writeFragment(examplePage({ type: 'columns', attrs: { id: 'columns', gap: 20 }, content }), {
        ...context,
        addressOf: ({ fileName }) => fileName,
      });
    expect(html([empty('a'), said])).toContain('<div class="column"></div>');
    expect(html([empty('a'), empty('b')])).not.toContain('class="column');
  });

  it('have one that comes first on a phone, though two were said to', () => {
    const block = columnsOf([50, 50, 50]);
    const both =
      block.type === 'columns'
        ? {
            ...block,
            content: block.content.map((one) => ({ ...one, attrs: { ...one.attrs, leads: true } })),
          }
        : block;
    const html = writeFragment(examplePage(both), { ...context, addressOf: ({ fileName }) => fileName });
    expect(html.match(/class="column leads"/g)).toHaveLength(1);
  });
});

describe('a before-and-after', () => {
  const pair = (...content: ReturnType<typeof use>[]): Block => ({
    type: 'beforeAfter',
    attrs: { id: 'pair', divider: 40 },
    content,
  });
  const html = (block: Block, change = {}) =>
    writeFragment(examplePage(block), { ...context, addressOf: ({ fileName }) => fileName, ...change });

  it('goes out as two figures of the whole width, with what its divider needs', () => {
    const made = html(pair(use('usual'), use('wide')));
    expect(made).toContain(
      '<div class="before-after" style="--at:40%" data-divider="How much of before is shown, in percent">',
    );
    expect(made.match(/<figure /g)).toHaveLength(2);
    expect(widthsAt(1280, pair(use('usual'), use('wide')))).toEqual([PLAIN_RULES.column, PLAIN_RULES.column]);
    expect(pageScript(examplePage(pair(use('usual'))), new Map())).toContain('.before-after');
    expect(pageScript(examplePage(paragraph('Words')), new Map())).toBe('');
  });

  it('is two plain figures where there is no style sheet, and one where the other is gone', () => {
    expect(html(pair(use('usual'), use('wide')), { isInline: true })).not.toContain('before-after');
    const alone = html(pair(use('usual'), use('gone')));
    expect(alone).not.toContain('before-after');
    expect(alone.match(/<figure /g)).toHaveLength(1);
  });

  it('of two shapes is found, and cut to that of the first', () => {
    const page = examplePage(pair(use('usual'), use('square')));
    const [found] = proofPage(proofInput(page, PLAIN_RULES, pieces, A_DAY)).filter(
      ({ code }) => code === 'pair-shapes',
    );
    const [remedy] = found?.remedies ?? [];
    if (!remedy) throw new Error('There is no remedy.');
    const mended = applyRemedy(page, remedy);
    expect(proofPage(proofInput(mended, PLAIN_RULES, pieces, A_DAY)).map(({ code }) => code)).not.toContain(
      'pair-shapes',
    );
  });

  it.each([
    [1.5, { across: 3, down: 2 }],
    [16 / 9, { across: 16, down: 9 }],
    [0.8, { across: 4, down: 5 }],
  ])('of %f has the shape of whole numbers that is nearest', (aspect, shape) => {
    expect(shapeNear(aspect)).toEqual(shape);
  });
});

describe('a banner', () => {
  const shown = { lights: { columns: 2, rows: 2, rgb: [20, 20, 20, 250, 250, 250, 20, 20, 20, 20, 20, 20] } };
  const ground = new Map([
    ['usual', examplePiece({ id: 'usual', size: { width: 3000, height: 1500 }, ...shown })],
  ]);
  const bannerOf = (change: Partial<Banner['attrs']> = {}, words = 'Booming again'): Banner => ({
    type: 'banner',
    attrs: { id: 'banner', ...USUAL_BANNER, plate: null, ...change },
    content: [
      use('usual'),
      { type: 'bannerWords', attrs: { id: 'over' }, content: [heading(words, 2), paragraph('At dawn.')] },
    ],
  });
  const at = (block: Banner, viewport = 1280) => {
    const { room } = standingsOf(examplePage(block), { rules: PLAIN_RULES, pieces: ground })[0] ?? {};
    return room ? bannerAt(block, { rules: PLAIN_RULES, pieces: ground }, room, viewport) : null;
  };

  it('is as wide as the column, as what breaks out of it, or as the window', () => {
    const widths = (['column', 'breakout', 'bleed'] as const).map(
      (position) => widthsAt(1600, bannerOf({ position }))[0],
    );
    expect(widths).toEqual([PLAIN_RULES.column, PLAIN_RULES.breakout, 1600]);
  });

  it('is judged where its words lie, at every width at which they do', () => {
    expect(at(bannerOf({ place: 'top left' }))?.contrast?.is).toBeGreaterThan(10);
    expect(at(bannerOf({ place: 'top right' }))?.contrast?.is).toBeLessThan(2);
    expect(at(bannerOf({ place: 'top right', ink: '#172126' }))?.contrast?.is).toBeGreaterThan(10);
    // On a plate it is the plate that counts.
    expect(at(bannerOf({ place: 'top right', plate: '#172126' }))?.contrast?.is).toBeGreaterThan(10);
    // Under it on a phone.
    expect(at(bannerOf({ place: 'top right' }), 390)).toBeNull();
  });

  it('says of its heading and its words that which falls shorter', () => {
    // The words under the heading are small, and need more.
    expect(at(bannerOf({ place: 'top right' }))?.contrast?.needed).toBe(4.5);
  });

  it('has words that are higher than its picture', () => {
    expect(at(bannerOf())?.isTall).toBe(false);
    expect(at(bannerOf({}, 'Booming again and again '.repeat(20)))?.isTall).toBe(true);
  });

  it('keeps its words in its picture wherever they stand', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...OVER_PLACES),
        fc.constantFrom(null, '#172126'),
        fc.integer({ min: 600, max: 2400 }),
        fc.lorem({ maxCount: 12 }),
        (place, plate, width, words) => {
          const size = { width, height: width };
          const { lines, isTall } = setBanner(bannerOf({ place, plate }, words), size);
          if (isTall) return;
          for (const { box } of lines) {
            expect(box.left).toBeGreaterThanOrEqual(0);
            expect(box.top).toBeGreaterThanOrEqual(0);
            expect(box.left + box.width).toBeLessThanOrEqual(size.width + 1e-6);
            expect(box.top + box.height).toBeLessThanOrEqual(size.height + 1e-6);
          }
        },
      ),
    );
  });

  it('goes out with real words and one link, under its picture where styles are written inline', () => {
    const html = (block: Banner, isInline = false) =>
      writeFragment(examplePage(block), {
        rules: PLAIN_RULES,
        pieces: ground,
        addressOf: ({ fileName }) => fileName,
        isInline,
      });
    const linked = html(bannerOf({ link: '/walks', position: 'bleed', plate: '#172126' }));
    expect(linked).toContain('<div class="banner bleed at-bottom-left plated linked"');
    expect(linked).toContain('<h2><a href="/walks">Booming again</a></h2>');
    expect(linked.match(/<a href="\/walks"/g)).toHaveLength(1);
    expect(html(bannerOf(), true)).not.toContain('class="banner ');
    expect(html(bannerOf({}, 'Booming again'), true)).toContain('Booming again</h2>');
  });

  it('is plain words without its picture', () => {
    const lone = { ...bannerOf(), content: bannerOf().content.slice(1) };
    const html = writeFragment(examplePage(lone), {
      rules: PLAIN_RULES,
      pieces: ground,
      addressOf: ({ fileName }) => fileName,
    });
    expect(html).not.toContain('class="banner ');
    expect(html).toContain('Booming again</h2>');
  });
});
