import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HOSTS, readOne } from '../embed/testing.ts';
import { AS_IT_CAME, sizeAfter } from '../media/recipe.ts';
import { maybeRecipe } from '../media/recipe-key.ts';
import { isUnnamed } from '../naming/gibberish.ts';
import { nameFault } from '../naming/rule.ts';
import { replacedInStem, replacedInText } from '../naming/search-replace.ts';
import { examplePiece, PLAIN_RULES } from '../page/testing.ts';
import type { LabelPatch } from '../rights/label.ts';
import { NO_TERMS } from '../rights/terms.ts';
import { plainOrder, type RunOrder } from './order.ts';
import type { RunPiece } from './piece.ts';
import { planRun } from './plan.ts';
import { maybeSizeWish, type SizeWish, saySizeWish } from './size-wish.ts';
import { sayRunWarning } from './warning.ts';

const RULES = {
  ...PLAIN_RULES,
  cutPresets: [
    { id: 'column', name: 'Column', ratio: null, width: 720 },
    { id: 'card', name: 'Card', ratio: { across: 4, down: 5 }, width: 360 },
  ],
};
const COLUMN: SizeWish = { by: 'preset', preset: 'column' };
const CARD: SizeWish = { by: 'preset', preset: 'card' };
const NOTHING_TAKEN = () => false;

function piece(
  id: string,
  change: Partial<Omit<RunPiece, 'label'>> & { readonly label?: LabelPatch } = {},
): RunPiece {
  const { folder = 'hides', format = 'jpeg', originalName = 'IMG_0612.JPG', isOut = false, ...rest } = change;
  return { ...examplePiece({ id, stem: id, ...rest }), folder, format, originalName, isOut };
}

function order(pieces: readonly RunPiece[], change: Partial<RunOrder> = {}): RunOrder {
  return {
    ...plainOrder(
      'reserve',
      pieces.map(({ id }) => id),
    ),
    ...change,
  };
}

const plan = (pieces: readonly RunPiece[], change: Partial<RunOrder>, taken: readonly string[] = []) =>
  planRun(order(pieces, change), pieces, RULES, (stem) => taken.includes(stem));

describe('sizes of a run', () => {
  it('are the presets of the target, also at twice their pixels, in each format', () => {
    const [row] = plan([piece('heron')], { sizes: [COLUMN, CARD], sharp: true });
    expect(row?.files.map(({ name }) => name)).toEqual([
      'heron--720.avif',
      'heron--720.jpg',
      'heron--1440.avif',
      'heron--1440.jpg',
      'heron--4x5-360.avif',
      'heron--4x5-360.jpg',
      'heron--4x5-720.avif',
      'heron--4x5-720.jpg',
    ]);
    expect(row?.files[4]).toMatchObject({ width: 360, height: 450, quality: RULES.likeness });
  });

  it('may differ for upright pictures', () => {
    const upright = piece('bittern', { size: { width: 3000, height: 4500 } });
    const rows = plan([piece('heron'), upright], {
      sizes: [{ by: 'width', px: 1200 }],
      portrait: [{ by: 'width', px: 400 }],
      formats: ['webp'],
    });
    expect(rows.map(({ files }) => files.map(({ width, height }) => [width, height]))).toEqual([
      [[1200, 800]],
      [[400, 600]],
    ]);
  });

  it.each<[SizeWish, number, number]>([
    [{ by: 'width', px: 600 }, 600, 400],
    [{ by: 'height', px: 600 }, 900, 600],
    [{ by: 'long', px: 600 }, 600, 400],
    [{ by: 'box', width: 500, height: 200 }, 300, 200],
    [{ by: 'share', percent: 10 }, 600, 400],
  ])('%j of 6000 by 4000 px', (wish, width, height) => {
    const [row] = plan([piece('heron')], { sizes: [wish], formats: ['webp'] });
    expect(row?.files[0]).toMatchObject({ width, height });
  });

  it('leave a piece that is too small at its own, and say so', () => {
    const small = piece('heron', { size: { width: 610, height: 407 } });
    const [row] = plan([small], { sizes: [COLUMN], formats: ['webp'] });
    expect(row?.files[0]).toMatchObject({ width: 610, height: 407 });
    expect(row?.warnings.map(sayRunWarning)).toEqual(['Too small for 720, left at its own pixels.']);
  });

  it('do not crop what may not be changed', () => {
    const [row] = plan([piece('heron', { label: { licence: 'cc-by-nd-4.0' } })], {
      sizes: [CARD],
      recipe: { from: 'Bittern', prep: { ...AS_IT_CAME, turn: 90 } },
    });
    expect(row?.files.map(({ recipe }) => recipe)).toEqual(['whole', 'whole']);
    expect(row?.after.prep).toEqual(AS_IT_CAME);
    expect(row?.warnings).toContainEqual({ code: 'no-changes', licence: 'CC BY-ND 4.0' });
  });

  it('give a transparent piece PNG in place of JPEG, and say what moves', () => {
    const rows = plan([piece('logo', { alpha: true }), piece('gull', { animated: true })], {
      sizes: [COLUMN],
      formats: ['webp', 'jpeg'],
    });
    expect(rows.map(({ files }) => files.map(({ format }) => format))).toEqual([
      ['webp', 'png'],
      ['webp', 'jpeg'],
    ]);
    expect(rows.map(({ warnings }) => warnings.map(({ code }) => code))).toEqual([
      ['png-for-jpeg'],
      ['stills'],
    ]);
  });

  it('of a preset that is gone are none', () => {
    expect(plan([piece('heron')], { sizes: [{ by: 'preset', preset: 'gone' }] })[0]?.leftOut).toBe('nothing');
  });

  it('follow the recipe that is given to the pieces in the same run', () => {
    const [row] = plan([piece('heron')], {
      sizes: [COLUMN],
      formats: ['webp'],
      recipe: { from: 'Bittern', prep: { ...AS_IT_CAME, turn: 90 } },
    });
    expect(row?.files[0]).toMatchObject({ recipe: 'r90', width: 720, height: 1080 });
  });

  it('have words drawn into them only where no page will hold them', () => {
    const words = { text: 'Booming', place: 'top', size: 60, ink: '#ffffff', plate: null } as const;
    const pieces = [piece('heron', { prep: { ...AS_IT_CAME, words } })];
    const wordsOf = (change: Partial<RunOrder>, rules = RULES) => {
      const [row] = planRun(order(pieces, { sizes: [COLUMN], ...change }), pieces, rules, NOTHING_TAKEN);
      return maybeRecipe(row?.files[0]?.recipe ?? '')?.words;
    };
    expect(wordsOf({})).toBeNull();
    expect(wordsOf({ into: 'zip' })).toEqual(words);
    expect(wordsOf({}, { ...RULES, wordsOver: 'drawn' })).toEqual(words);
  });

  it('are read from what a person types', () => {
    const typed = ['480', '480 px wide', 'x 600', '600 high', '1200 long', '800 × 600', '50%'];
    expect(typed.map((text) => saySizeWish(maybeSizeWish(text) ?? COLUMN, []))).toEqual([
      '480 wide',
      '480 wide',
      '600 high',
      '600 high',
      '1200 on the long edge',
      'within 800 × 600',
      '50%',
    ]);
    for (const text of ['', 'wide', '0', '0%', '101%', '99999', '-3', '1e3', '3.5'])
      expect(maybeSizeWish(text)).toBeUndefined();
  });
});

describe('names of a run', () => {
  const pattern = [{ part: 'subject' }, { part: 'number' }] as const;

  it('follow a pattern with numbers that have as many digits as the run needs', () => {
    const rows = plan([piece('one'), piece('two')], {
      naming: { by: 'pattern', pattern: [...pattern], which: 'all' },
    });
    expect(rows.map(({ after }) => after.stem)).toEqual(['heron-01', 'heron-02']);
  });

  it('are given to those alone that nobody named', () => {
    expect(['img-0612', 'picture-2', '2026-03-12', 'p1190421'].filter(isUnnamed)).toHaveLength(4);
    const rows = plan([piece('img-0612'), piece('reed-bed')], {
      naming: { by: 'pattern', pattern: [{ part: 'subject' }], which: 'unnamed' },
    });
    expect(rows.map(({ after, leftOut }) => [after.stem, leftOut])).toEqual([
      ['heron', null],
      ['reed-bed', 'nothing'],
    ]);
  });

  it('take the next free one where one is taken, on the shelf or in the run, and say so', () => {
    const rows = plan(
      [piece('one'), piece('two')],
      { naming: { by: 'pattern', pattern: [{ part: 'subject' }], which: 'all' } },
      ['heron'],
    );
    expect(rows.map(({ after }) => after.stem)).toEqual(['heron-2', 'heron-3']);
    expect(rows[0]?.warnings.map(sayRunWarning)).toEqual(['heron is in use. Add a word to tell it apart']);
  });

  it('say nothing of a piece that keeps the number it has', () => {
    const [row] = plan(
      [piece('heron-2')],
      { naming: { by: 'pattern', pattern: [{ part: 'subject' }], which: 'all' }, folder: 'hides/new' },
      ['heron'],
    );
    expect([row?.after.stem, row?.warnings]).toEqual(['heron-2', []]);
  });

  it('may take one that an earlier row gives up, unless readers still come by it', () => {
    const renamed = { by: 'replace', search: 'one', replace: 'three', titles: false } as const;
    const rows = { two: { stem: 'one' } };
    const free = plan([piece('one'), piece('two')], { naming: renamed, rows }, ['one', 'two']);
    expect(free.map(({ after }) => after.stem)).toEqual(['three', 'one']);
    const out = plan([piece('one', { isOut: true }), piece('two')], { naming: renamed, rows }, [
      'one',
      'two',
    ]);
    expect(out.map(({ after }) => after.stem)).toEqual(['three', 'one-2']);
    expect(out[0]?.warnings).toEqual([{ code: 'was-out', stem: 'one' }]);
  });

  it('change by search and replace, in titles too', () => {
    const [row] = plan([piece('grey-heron-1', { label: { title: 'Grey heron (1)' } })], {
      naming: { by: 'replace', search: 'Grey Heron', replace: 'Night heron', titles: true },
    });
    expect(row?.after).toMatchObject({ stem: 'night-heron-1', title: 'Night heron (1)' });
    expect(replacedInText('a.c abc', { search: 'a.c', replace: '$&' })).toBe('$& abc');
    expect(replacedInStem('heron', { search: 'heron', replace: '' }, 'picture')).toBe('picture');
    expect(replacedInStem('heron', { search: ' ', replace: 'x' }, 'picture')).toBe('heron');
  });

  it('that a person wrote stand, and a faulty one leaves the name as it is', () => {
    const rows = plan([piece('one'), piece('two')], {
      rows: { one: { stem: 'eel-pass' }, two: { stem: 'Eel Pass' } },
    });
    expect(rows.map(({ after }) => after.stem)).toEqual(['eel-pass', 'two']);
    expect(rows[1]?.warnings[0]?.code).toBe('name-fault');
  });
});

describe('who takes part in a run', () => {
  it('leaves out comps that would be sized, what a person left out, and what would not change', () => {
    const pieces = [
      piece('comp', { label: { licence: 'comp' } }),
      piece('left'),
      piece('heron', { folder: 'hides' }),
    ];
    const leftOut = (change: Partial<RunOrder>) => plan(pieces, change).map((row) => row.leftOut);
    expect(leftOut({ sizes: [COLUMN], rows: { left: { leftOut: true } } })).toEqual(['comp', 'person', null]);
    expect(leftOut({ folder: 'Hides' })).toEqual(['nothing', 'nothing', 'nothing']);
    expect(leftOut({ folder: 'Reed Cutting' })).toEqual([null, null, null]);
  });

  it('leaves out of a ZIP what no file is made of, for there its name and folder change nothing', () => {
    const { embed } = readOne('https://lanternreel.example/watch/eel-pass-71');
    const held = { embed, hosts: HOSTS, framing: {}, poster: 'host' } as const;
    const frame: RunPiece = {
      ...piece('heron'),
      ...examplePiece({ stem: 'eel-pass' }, { kind: 'embed', embed: held }),
    };
    const renamed: Partial<RunOrder> = { sizes: [COLUMN], rows: { heron: { stem: 'grey-heron' } } };
    const [packed] = plan([frame], { ...renamed, into: 'zip' });
    expect(packed).toMatchObject({ leftOut: 'nothing', warnings: [{ code: 'no-picture', kind: 'embed' }] });
    const [onShelf] = plan([frame], renamed);
    expect(onShelf).toMatchObject({ leftOut: null, after: { stem: 'grey-heron' } });
  });

  it('warns of a ZIP with what is not cleared', () => {
    const [row] = plan([piece('heron', { label: { licence: 'unknown' } })], { into: 'zip', sizes: [COLUMN] });
    expect(row?.warnings).toContainEqual({
      code: 'not-cleared',
      why: 'Nobody has said under which licence it may be used.',
    });
  });

  it('warns of a ZIP with what may be used no more on that day', () => {
    const terms = { ...NO_TERMS, ends: '2026-11-27' };
    const over = piece('heron', { label: { licence: 'permission', creator: 'Tomas Reill', terms } });
    const at = (now: Date) =>
      planRun(order([over], { into: 'zip', sizes: [COLUMN] }), [over], RULES, NOTHING_TAKEN, now)[0]
        ?.warnings;
    expect(at(new Date('2026-11-28T12:00:00Z'))).toMatchObject([
      { code: 'not-cleared', why: expect.stringContaining('ended on 27 November 2026') },
    ]);
    expect(at(new Date('2026-11-27T12:00:00Z'))).toEqual([]);
  });
});

describe('a run of anything', () => {
  const side = fc.integer({ min: 1, max: 9000 });
  const pieces = fc
    .array(
      fc.record({ width: side, height: side, title: fc.string({ maxLength: 30 }), isOut: fc.boolean() }),
      { minLength: 1, maxLength: 12 },
    )
    .map((all) =>
      all.map(({ width, height, title, isOut }, at) =>
        piece(`p-${at}-a`, { size: { width, height }, isOut, label: { title } }),
      ),
    );
  const wish = fc.oneof(
    fc.constant(COLUMN),
    fc.constant(CARD),
    side.map((px): SizeWish => ({ by: 'long', px: Math.min(px, 8000) })),
    fc.record({ width: side, height: side }).map((box): SizeWish => ({ by: 'box', ...box })),
  );

  it('never enlarges, keeps each ratio within a pixel, and names everything web-safe and once', () => {
    fc.assert(
      fc.property(pieces, fc.array(wish, { maxLength: 3 }), fc.boolean(), (some, sizes, sharp) => {
        const rows = planRun(
          order(some, {
            sizes,
            sharp,
            naming: { by: 'pattern', pattern: [{ part: 'subject' }], which: 'all' },
          }),
          some,
          RULES,
          NOTHING_TAKEN,
        );
        const stems = rows.map(({ after }) => after.stem);
        expect(new Set(stems).size).toBe(stems.length);
        for (const stem of stems) expect(nameFault(stem)).toBeUndefined();
        const names = rows.flatMap(({ files }) => files.map(({ name }) => name));
        expect(new Set(names).size).toBe(names.length);
        for (const [at, row] of rows.entries())
          for (const file of row.files) {
            const own = sizeAfter(
              some[at]?.size ?? { width: 1, height: 1 },
              maybeRecipe(file.recipe) ?? never(),
            );
            expect(file.width).toBeLessThanOrEqual(own.width);
            expect(Math.abs(file.height - (file.width * own.height) / own.width)).toBeLessThanOrEqual(1);
          }
      }),
    );
  });
});

function never(): never {
  throw new Error('a planned file has a recipe that cannot be read');
}
