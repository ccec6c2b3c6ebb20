import { describe, expect, it } from 'vitest';
import { sayCondition } from './condition.ts';
import { qualityFor, wantedLikeness } from './quality.ts';
import { AS_IT_CAME, type Prep, WHOLE } from './recipe.ts';
import { maybeRecipe, recipeKey } from './recipe-key.ts';
import { stepsOf } from './recipe-says.ts';
import { STEPS } from './steps.ts';

const rect = (left: number, top: number, width: number, height: number) =>
  [left, top, width, height].map((fraction) => Math.round(fraction * STEPS)).join('-');

describe('keys of recipes', () => {
  const whole = {
    ...WHOLE,
    trim: { left: 0.1, top: 0.2, width: 0.5, height: 0.4 },
    turn: 90,
    mirror: true,
    straighten: -25,
    crop: { left: 0, top: 0.5, width: 1, height: 0.25 },
    pad: { ratio: { across: 16, down: 9 }, backgroundColour: '#a0b1c2' },
    backgroundColour: '#ffffff',
    sharpness: 40,
  } as const;

  it('hold each part in its order, and are read back to the same recipe', () => {
    const key = recipeKey(whole);
    expect(key).toBe(
      `b${rect(0.1, 0.2, 0.5, 0.4)}.r90.m.s-25.c${rect(0, 0.5, 1, 0.25)}.p16-9-a0b1c2.gffffff.h40`,
    );
    expect(maybeRecipe(key)).toEqual(whole);
    expect(recipeKey(WHOLE)).toBe('whole');
    expect(maybeRecipe('whole')).toEqual(WHOLE);
  });

  it('give the smallest rectangle an extent', () => {
    expect(recipeKey({ ...WHOLE, crop: { left: 0, top: 0, width: 1e-9, height: 1e-9 } })).toBe('c0-0-1-1');
  });

  it.each([
    ['an empty one', ''],
    ['a part twice', 'm.m'],
    ['parts out of order', 'm.r90'],
    ['a part that is none', 'x'],
    ['a turn that is none', 'r45'],
    ['more than is straightened', 's999'],
    ['more than is sharpened', 'h999'],
    ['a pad of no width', 'p0-9-ffffff'],
    ['a pad of no height', 'p9-0-ffffff'],
    ['a pad that is too wide', 'p101-9-ffffff'],
    ['a pad that is too high', 'p9-101-ffffff'],
    ['a crop without width', `c${rect(0, 0, 0, 1)}`],
    ['a crop without height', `c${rect(0, 0, 1, 0)}`],
    ['a crop over the right edge', `c${rect(0.5, 0, 0.6, 1)}`],
    ['a crop over the lower edge', `c${rect(0, 0.5, 1, 0.6)}`],
    ['a trim over the edge', `b${rect(0.9, 0, 0.2, 1)}`],
    ['a tone that is none', 't999_0_0_0'],
    ['nothing turned', 's0'],
    ['another spelling', 'h07'],
  ])('are not %s', (_what, key) => {
    expect(maybeRecipe(key)).toBeUndefined();
  });

  it.each(['p100-100-ffffff', 'p1-1-000000', 'h1', 's-1'])('may be %s', (key) => {
    const read = maybeRecipe(key);
    expect(read && recipeKey(read)).toBe(key);
  });
});

describe('steps of a recipe in words', () => {
  const said = (change: Partial<Prep>) =>
    stepsOf({ ...AS_IT_CAME, ...change }, () => 'brighter').map(({ says }) => says);

  it('are none of a piece as it came', () => {
    expect(said({})).toEqual([]);
  });

  it('say each, in the order in which they are done', () => {
    expect(
      said({
        turn: 90,
        mirror: true,
        straighten: -15,
        crop: { left: 0, top: 0, width: 0.5, height: 0.5 },
        frames: [
          { ratio: { across: 16, down: 9 }, crop: { left: 0, top: 0, width: 1, height: 1 } },
          { ratio: { across: 1, down: 1 }, crop: { left: 0, top: 0, width: 1, height: 1 } },
        ],
        tone: { ...AS_IT_CAME.tone, light: 10 },
        sharpness: 30,
        backgroundColour: '#ffffff',
      }),
    ).toEqual([
      'Turned by 90° clockwise and mirrored.',
      'Straightened by -1.5°.',
      'Cropped to 25% of it for every use.',
      'Framed by hand for 16:9, 1:1.',
      'Toned: brighter.',
      'Sharpened by 30.',
      'Laid on #ffffff where it is transparent.',
    ]);
    expect(said({ mirror: true })).toEqual(['Mirrored.']);
    expect(said({ turn: 180 })).toEqual(['Turned by 180° clockwise.']);
    expect(said({ crop: { left: 0, top: 0, width: 0.01, height: 0.01 } })).toEqual([
      'Cropped to 1% of it for every use.',
    ]);
  });
});

describe('how good a cut is made', () => {
  it('is a likeness from 900 on, and the encoder’s own under that', () => {
    expect(wantedLikeness(899)).toBeNull();
    expect(wantedLikeness(900)).toBe(0.9);
    expect(wantedLikeness(985)).toBe(0.985);
  });

  it('is a person’s own choice where there is one, and never for PNG', () => {
    const house = { likeness: 985 };
    expect(qualityFor(house, { quality: { avif: 55 } }, 'avif')).toBe(55);
    expect(qualityFor(house, { quality: {} }, 'avif')).toBe(985);
    expect(qualityFor(house, { quality: { avif: 55 } }, 'png')).toBe(985);
  });
});

describe('what was found on a file', () => {
  it.each([
    [{ code: 'turned' }, /camera turned/],
    [{ code: 'drawing' }, /drawing/],
    [{ code: 'print-colours' }, /for print/],
    [{ code: 'wide-colours', profile: 'Wide 3' }, /Wide 3/],
    [{ code: 'unknown-colours' }, /no profile/],
    [{ code: 'deep-colours' }, /16 bits/],
    [{ code: 'moves', pictures: 12 }, /12 pictures/],
    [{ code: 'place-of-taking' }, /where it was taken/],
    [{ code: 'metadata-unread' }, /too much to be read/],
    [{ code: 'border', inside: { left: 0, top: 0, width: 1, height: 1 } }, /border/],
    [{ code: 'enlarged-before' }, /enlarged before/],
    [{ code: 'compressed', quality: 20 }, /compressed/],
    [{ code: 'watermarked' }, /agency’s mark/],
  ] as const)('is said of %j', (condition, words) => {
    expect(sayCondition(condition)).toMatch(words);
  });
});
