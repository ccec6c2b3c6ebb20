import fc from 'fast-check';
import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import type { CropRect } from './crop.ts';
import { OVER_PLACES } from './over-words.ts';
import {
  AS_IT_CAME,
  awakened,
  fittedRecipe,
  focalIn,
  focalOfOriginal,
  innerSize,
  mirroredPrep,
  type Prep,
  PrepSchema,
  type Recipe,
  recipeForRatio,
  sizeAfter,
  TURNS,
  turnedPrep,
  WHOLE,
  wholeRecipe,
  wholeSize,
} from './recipe.ts';
import { maybeRecipe, recipeKey } from './recipe-key.ts';
import { changesOf, stepsOf } from './recipe-says.ts';
import { PLAIN_TONE, sayTone, svgMatrix, type Tone, toneMatrix } from './tone.ts';

const size = fc.record({
  width: fc.integer({ min: 40, max: 8000 }),
  height: fc.integer({ min: 40, max: 8000 }),
});
const step = fc.integer({ min: -100, max: 100 });
const ink = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
const tone: fc.Arbitrary<Tone> = fc.record({
  light: step,
  contrast: step,
  colour: step,
  warmth: step,
  monochrome: fc.boolean(),
  inks: fc.option(fc.record({ dark: ink, light: ink })),
});
const share = fc.double({ min: 0, max: 0.8, noNaN: true });
const prep: fc.Arbitrary<Prep> = fc.record({
  version: fc.constant(1 as const),
  turn: fc.constantFrom(...TURNS),
  mirror: fc.boolean(),
  straighten: fc.integer({ min: -150, max: 150 }),
  tone,
  frames: fc.constant([]),
  disabledSteps: fc.constant([]),
  crop: fc.option(
    fc
      .record({ left: share, top: share, width: share, height: share })
      .map(({ left, top, width, height }) => ({
        left,
        top,
        width: (0.1 + width * 0.9) * (1 - left),
        height: (0.1 + height * 0.9) * (1 - top),
      })),
  ),
  sharpness: fc.integer({ min: 0, max: 100 }),
  backgroundColour: fc.option(ink),
  quality: fc.constant({}),
  words: fc.option(
    fc.record({
      text: fc
        .string({ unit: fc.constantFrom(...'Reed’s 7 & ŵ\n—Aé'), minLength: 1, maxLength: 14 })
        .map((t) => `a${t}b`),
      place: fc.constantFrom(...OVER_PLACES),
      size: fc.integer({ min: 20, max: 200 }),
      ink,
      plate: fc.option(ink),
    }),
  ),
});
const ratio = fc.record({ across: fc.integer({ min: 1, max: 30 }), down: fc.integer({ min: 1, max: 30 }) });
const point = fc.record({
  x: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
  y: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
});

describe('a recipe', () => {
  it('is read back from its key, and equal recipes have equal keys', () => {
    fc.assert(
      fc.property(size, prep, ratio, point, (picture, one, shape, focal) => {
        const recipe = recipeForRatio({ size: picture, trim: null, prep: one, focal }, shape);
        const key = recipeKey(recipe);
        expect(key).toMatch(/^[A-Za-z0-9][A-Za-z0-9._-]{0,254}$/);
        const read = maybeRecipe(key);
        expect(read && recipeKey(read)).toBe(key);
        expect(read && sizeAfter(picture, read)).toEqual(sizeAfter(picture, recipe));
      }),
    );
  });

  it.each([
    '',
    'r45',
    'r90.',
    'x',
    's999',
    'whole.r90',
    't1_2_3',
    't101_0_0_0',
    'm.r90',
    'c0-0-0-0',
    'r0',
    's0',
    '../etc',
    'c900000-0-900000-1000000',
  ])('is not made of %j', (key) => {
    expect(maybeRecipe(key)).toBeUndefined();
  });

  it('never makes more pixels than the original has on its longer edge', () => {
    fc.assert(
      fc.property(size, prep, (picture, one) => {
        const made = wholeSize({ size: picture, trim: null, prep: one });
        const longest = Math.max(picture.width, picture.height);
        expect(made.width).toBeLessThanOrEqual(longest);
        expect(made.height).toBeLessThanOrEqual(longest);
        expect(Math.min(made.width, made.height)).toBeGreaterThanOrEqual(1);
      }),
    );
  });

  it('keeps a ratio within a pixel', () => {
    fc.assert(
      fc.property(size, prep, ratio, point, (picture, one, shape, focal) => {
        // Of less than a px nothing is left that has a shape: it is shown as one px.
        const bare = sizeAfter(picture, {
          ...wholeRecipe({ trim: null, prep: one }),
          crop: null,
        });
        const { crop } = one;
        fc.pre(crop === null || (crop.width * bare.width >= 1 && crop.height * bare.height >= 1));
        const made = sizeAfter(
          picture,
          recipeForRatio({ size: picture, trim: null, prep: one, focal }, shape),
        );
        const wanted = shape.across / shape.down;
        const off = Math.min(
          Math.abs(made.width - made.height * wanted) / Math.max(1, wanted),
          Math.abs(made.height - made.width / wanted) / Math.max(1, 1 / wanted),
        );
        expect(off).toBeLessThanOrEqual(1.01);
      }),
    );
  });

  it('fits any picture whole into any shape, and only just', () => {
    fc.assert(
      fc.property(size, prep, ratio, (own, how, shape) => {
        const piece = { size: own, trim: null, prep: how };
        const whole = wholeSize(piece);
        const box = sizeAfter(own, fittedRecipe(piece, { ratio: shape, backgroundColour: '#ffffff' }));
        expect(box.width).toBeGreaterThanOrEqual(whole.width);
        expect(box.height).toBeGreaterThanOrEqual(whole.height);
        expect(box.width === whole.width || box.height === whole.height).toBe(true);
      }),
    );
  });

  it('is nothing for a piece as it came, and for steps that are switched off', () => {
    const piece = { size: { width: 600, height: 400 }, trim: null, prep: AS_IT_CAME };
    expect(wholeRecipe(piece)).toEqual(WHOLE);
    const off = { ...AS_IT_CAME, turn: 90, straighten: 30, disabledSteps: ['turn', 'straighten'] } as const;
    expect(
      recipeKey(wholeRecipe({ ...piece, prep: { ...off, disabledSteps: [...off.disabledSteps] } })),
    ).toBe('whole');
  });
});

describe('an upright rectangle inside a turned picture', () => {
  it('fits, whatever the angle', () => {
    fc.assert(
      fc.property(size, fc.integer({ min: -150, max: 150 }), (picture, tenths) => {
        const inner = innerSize(picture, tenths / 10);
        const angle = (Math.abs(tenths) / 10 / 180) * Math.PI;
        const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
        // Its corner, turned back, lies inside the picture.
        expect(inner.width * cos + inner.height * sin).toBeLessThanOrEqual(picture.width + 0.01);
        expect(inner.width * sin + inner.height * cos).toBeLessThanOrEqual(picture.height + 0.01);
      }),
    );
  });

  it('is the picture itself at no angle', () => {
    expect(innerSize({ width: 6000, height: 4000 }, 0)).toEqual({ width: 6000, height: 4000 });
    const { width, height } = innerSize({ width: 6000, height: 4000 }, 1);
    expect(width).toBeGreaterThan(5900);
    expect(height).toBeGreaterThan(3880);
  });
});

describe('the focal point', () => {
  it('set on the picture as it is seen comes back to where it was set', () => {
    fc.assert(
      fc.property(size, prep, point, (picture, one, seen) => {
        const piece = { size: picture, trim: null, prep: one, focal: { x: 0.5, y: 0.5 } };
        const back = focalIn({ ...piece, focal: focalOfOriginal(piece, seen) });
        expect(back.x).toBeCloseTo(seen.x, 3);
        expect(back.y).toBeCloseTo(seen.y, 3);
      }),
    );
  });

  it('a frame set by hand for a shape is used for it, and for no other', () => {
    const crop = { left: 0.1, top: 0.2, width: 0.5, height: 0.5 };
    const framed = { ...AS_IT_CAME, frames: [{ ratio: { across: 3, down: 2 }, crop }] };
    const piece = {
      size: { width: 6000, height: 4000 },
      trim: null,
      prep: framed,
      focal: { x: 0.9, y: 0.5 },
    };
    expect(recipeForRatio(piece, { across: 6, down: 4 }).crop).toEqual(crop);
    expect(recipeForRatio(piece, { across: 1, down: 1 }).crop?.left).toBeCloseTo(0.3, 5);
  });
});

describe('a tone', () => {
  it('of nothing changes nothing', () => {
    const numbers = toneMatrix(PLAIN_TONE).flat();
    [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0].forEach((expected, at) => {
      expect(numbers[at]).toBeCloseTo(expected, 10);
    });
  });

  const apply = (one: Tone, colour: readonly [number, number, number]) =>
    toneMatrix(one).map(([r, g, b, add]) => r * colour[0] + g * colour[1] + b * colour[2] + add);

  it('in black and white is grey, and in two inks runs from one to the other', () => {
    const [r = 0, g = 1, b = 2] = apply({ ...PLAIN_TONE, monochrome: true }, [0.8, 0.2, 0.4]);
    expect(r).toBeCloseTo(g, 10);
    expect(g).toBeCloseTo(b, 10);
    const inks = { dark: '#0f5c4d', light: '#fde9e1' };
    const hex = (rgb: readonly number[]) =>
      `#${rgb
        .map((value) =>
          Math.round(value * 255)
            .toString(16)
            .padStart(2, '0'),
        )
        .join('')}`;
    expect(hex(apply({ ...PLAIN_TONE, inks }, [0, 0, 0]))).toBe('#0f5c4d');
    expect(hex(apply({ ...PLAIN_TONE, inks }, [1, 1, 1]))).toBe('#fde9e1');
  });

  it('goes the way that it says', () => {
    expect(apply({ ...PLAIN_TONE, light: 40 }, [0.5, 0.5, 0.5])[0]).toBeGreaterThan(0.5);
    expect(apply({ ...PLAIN_TONE, warmth: 50 }, [0.5, 0.5, 0.5])[0]).toBeGreaterThan(
      apply({ ...PLAIN_TONE, warmth: 50 }, [0.5, 0.5, 0.5])[2] ?? 1,
    );
    expect(apply({ ...PLAIN_TONE, contrast: 50 }, [0.8, 0.8, 0.8])[0]).toBeCloseTo(0.95, 5);
    expect(sayTone({ ...PLAIN_TONE, light: 8, colour: -4 })).toBe('lighter by 8, less colour by 4');
  });

  it('is written for the browser as one matrix of twenty finite numbers', () => {
    fc.assert(
      fc.property(tone, (one) => {
        const numbers = svgMatrix(toneMatrix(one)).split(' ').map(Number);
        expect(numbers).toHaveLength(20);
        expect(numbers.every(Number.isFinite)).toBe(true);
      }),
    );
  });
});

describe('what is done to a piece', () => {
  it('is told as changes, but for turning and trimming', () => {
    const recipe: Recipe = { ...WHOLE, turn: 90, trim: { left: 0.1, top: 0.1, width: 0.8, height: 0.8 } };
    expect(changesOf(recipe)).toEqual([]);
    expect(changesOf({ ...recipe, mirror: true, straighten: 12, tone: PLAIN_TONE })).toEqual([
      'straightened',
      'mirrored',
      'toned',
    ]);
  });

  it('is listed as sentences', () => {
    const said = stepsOf(
      { ...AS_IT_CAME, turn: 90, mirror: true, straighten: -8, tone: { ...PLAIN_TONE, light: 5 } },
      sayTone,
    );
    expect(said.map(({ says }) => says)).toEqual([
      'Turned by 90° clockwise and mirrored.',
      'Straightened by -0.8°.',
      'Toned: lighter by 5.',
    ]);
  });

  it('is switched on again by changing it, and by nothing else', () => {
    const before: Prep = { ...AS_IT_CAME, turn: 90, straighten: 12, disabledSteps: ['turn', 'straighten'] };
    expect(awakened(before, { ...before, straighten: 20 }).disabledSteps).toEqual(['turn']);
    expect(awakened(before, { ...before, mirror: true }).disabledSteps).toEqual(['straighten']);
    expect(awakened(before, { ...before, disabledSteps: ['turn'] }).disabledSteps).toEqual(['turn']);
    expect(awakened(AS_IT_CAME, { ...AS_IT_CAME, disabledSteps: ['tone'] }).disabledSteps).toEqual(['tone']);
  });

  it('made by a newer Placard, or of nonsense, is not taken for one', () => {
    expect(v.is(PrepSchema, { ...AS_IT_CAME, version: 2 })).toBe(false);
    expect(v.is(PrepSchema, { ...AS_IT_CAME, straighten: 151 })).toBe(false);
    expect(
      v.is(PrepSchema, {
        ...AS_IT_CAME,
        frames: [{ ratio: { across: 1, down: 1000 }, crop: { left: 0, top: 0, width: 1, height: 1 } }],
      }),
    ).toBe(false);
    expect(
      v.is(PrepSchema, {
        ...AS_IT_CAME,
        frames: [{ ratio: { across: 1, down: 1 }, crop: { left: 0, top: 0, width: 0, height: 2 } }],
      }),
    ).toBe(false);
  });
});

describe('a frame set by hand', () => {
  const share = fc.double({ min: 0.1, max: 0.45, noNaN: true });
  const crop = fc.record({ left: share, top: share, width: share, height: share });
  const middleOf = ({ left, top, width, height }: CropRect) => ({
    x: left + width / 2,
    y: top + height / 2,
  });
  const square = { across: 1, down: 1 };

  it('turns and mirrors with what it frames', () => {
    fc.assert(
      fc.property(size, crop, fc.constantFrom(...TURNS), fc.boolean(), (original, frame, turn, mirror) => {
        const before: Prep = { ...AS_IT_CAME, turn, mirror, frames: [{ ratio: square, crop: frame }] };
        const piece = { size: original, trim: null, prep: before, focal: { x: 0.5, y: 0.5 } };
        const focal = focalOfOriginal(piece, middleOf(frame));
        for (const after of [turnedPrep(before, 'left'), turnedPrep(before, 'right'), mirroredPrep(before)]) {
          const framed = after.frames[0]?.crop;
          const seen = focalIn({ ...piece, prep: after, focal });
          expect(framed && middleOf(framed).x).toBeCloseTo(seen.x, 6);
          expect(framed && middleOf(framed).y).toBeCloseTo(seen.y, 6);
        }
      }),
    );
  });

  it('is refitted to its shape when the picture is turned under it', () => {
    const wide = { across: 16, down: 9 };
    const frame = { left: 0.1, top: 0.1, width: 0.8, height: 0.8 };
    const before: Prep = { ...AS_IT_CAME, frames: [{ ratio: wide, crop: frame }] };
    const piece = { size: { width: 1600, height: 900 }, trim: null, focal: { x: 0.5, y: 0.5 } };
    expect(recipeForRatio({ ...piece, prep: before }, wide).crop).toEqual(frame);
    const turned = { ...piece, prep: turnedPrep(before, 'right') };
    const { width, height } = sizeAfter(piece.size, recipeForRatio(turned, wide));
    expect(width / height).toBeCloseTo(16 / 9, 2);
    expect(width).toBeLessThanOrEqual(900);
  });

  it('is turned back to where it was by the opposite turn, and by mirroring twice', () => {
    const frame = { left: 0.25, top: 0.125, width: 0.5, height: 0.25 };
    const before: Prep = { ...AS_IT_CAME, straighten: 12, frames: [{ ratio: square, crop: frame }] };
    expect(turnedPrep(turnedPrep(before, 'right'), 'left')).toEqual(before);
    expect(mirroredPrep(mirroredPrep(before))).toEqual(before);
  });
});
