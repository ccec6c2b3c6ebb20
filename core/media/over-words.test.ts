import fc from 'fast-check';
import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { contrastRatio, luminance, rgbOf } from './colour.ts';
import { contrastOver, type Lights, neededContrast, plateFor, sayContrast } from './over-contrast.ts';
import { OVER_PLACES, type OverWords, OverWordsSchema, setWords, spelled, unspelled } from './over-words.ts';
import { AS_IT_CAME, type Cuttable, fittedRecipe, type Prep, recipeForRatio, wholeRecipe } from './recipe.ts';
import { maybeRecipe, recipeKey } from './recipe-key.ts';
import { changesOf } from './recipe-says.ts';

const WORDS: OverWords = {
  text: 'Bitterns are booming again',
  place: 'bottom left',
  size: 60,
  ink: '#ffffff',
  plate: null,
};
const size = fc.record({
  width: fc.integer({ min: 120, max: 4000 }),
  height: fc.integer({ min: 90, max: 4000 }),
});
const words: fc.Arbitrary<OverWords> = fc.record({
  text: fc
    .array(fc.constantFrom('Bitterns', 'are', 'booming\nagain', 'at', 'Saltmere', '1931'), {
      minLength: 1,
      maxLength: 6,
    })
    .map((parts) => parts.join(' ')),
  place: fc.constantFrom(...OVER_PLACES),
  size: fc.integer({ min: 20, max: 200 }),
  ink: fc.constant('#ffffff'),
  plate: fc.constantFrom(null, '#172126'),
});

describe('words over a picture', () => {
  it('always lie inside it, with all their letters, and never larger than was asked', () => {
    fc.assert(
      fc.property(words, size, (one, picture) => {
        const set = setWords(one, picture);
        const slack = 0.5;
        for (const { box } of set.lines) {
          expect(box.left).toBeGreaterThanOrEqual(-slack);
          expect(box.top).toBeGreaterThanOrEqual(-slack);
          expect(box.left + box.width).toBeLessThanOrEqual(picture.width + slack);
          expect(box.top + box.height).toBeLessThanOrEqual(picture.height + slack);
        }
        const letters = (text: string) => text.replace(/\s/g, '');
        expect(letters(set.lines.map(({ text }) => text).join(''))).toBe(letters(one.text));
        expect(set.em).toBeLessThanOrEqual((one.size / 1000) * picture.width);
        expect(set.isSmaller).toBe(set.em < (one.size / 1000) * picture.width);
      }),
    );
  });

  it('are set alike at every width: lines break at the same words', () => {
    fc.assert(
      fc.property(words, fc.integer({ min: 2, max: 8 }), (one, times) => {
        const small = setWords(one, { width: 400, height: 300 });
        const large = setWords(one, { width: 400 * times, height: 300 * times });
        expect(large.lines.map(({ text }) => text)).toEqual(small.lines.map(({ text }) => text));
        expect(large.em / times).toBeCloseTo(small.em, 6);
      }),
    );
  });

  it('stand at their place', () => {
    const at = (place: OverWords['place']) => setWords({ ...WORDS, place }, { width: 1000, height: 600 });
    expect(at('top left').lines[0]?.box).toMatchObject({ left: 40, top: 40 });
    const [low] = at('bottom right').lines;
    expect(low && low.box.left + low.box.width).toBeCloseTo(960);
    expect(low && low.box.top + low.box.height).toBeCloseTo(560);
    const [middle] = at('middle').lines;
    expect(middle && middle.box.top + middle.box.height / 2).toBeCloseTo(300);
    expect(at('right').anchor).toBe('end');
  });

  it('break where a person broke them, and where there is no more room', () => {
    const lines = (text: string, wide: number) =>
      setWords({ ...WORDS, text, size: 100 }, { width: wide, height: wide }).lines.map((line) => line.text);
    expect(lines('Reeds\nand water', 800)).toEqual(['Reeds', 'and water']);
    expect(lines('Bitterns are booming again', 800)).toEqual(['Bitterns are', 'booming again']);
  });

  it.each([
    ['nothing', '  '],
    ['letters that the face does not have', 'Болото'],
    ['a picture of a face', 'Boom \u{1F426}'],
    ['control characters', 'a\u0007b'],
    ['too many words', 'boom '.repeat(30)],
    ['many letters that cost room', 'éàü'.repeat(9)],
  ])('refuse %s with a sentence', (_, text) => {
    const read = v.safeParse(OverWordsSchema, { ...WORDS, text });
    expect(read.success).toBe(false);
    expect(read.issues?.[0]?.message).toMatch(/^[A-Z].*\.$/);
  });

  it('are spelled so that they come back, in letters that a path may hold', () => {
    for (const text of ['Reed’s 7', 'a-b_c', 'ŵ\nand — “so”', '-41-', '_']) {
      expect(spelled(text)).toMatch(/^[A-Za-z0-9_-]+$/);
      expect(unspelled(spelled(text))).toBe(text);
    }
  });

  it.each([
    'w9-60-ffffff--a',
    'w0-1-ffffff--a',
    'w0-60-ffffff--',
    'w0-60-ffffff--_a',
    'w0-60-ffffff--a-0041-',
    'w0-60-ffffff--a-d800-',
    'w0-60-ffffff--a-fffff-',
    'w0-60-fffff--a',
  ])('are not read from %s', (key) => {
    expect(maybeRecipe(key)).toBeUndefined();
  });

  it('are part of a cut, not of the piece as a whole, and a change of it', () => {
    const piece = pieceWith(WORDS);
    expect(wholeRecipe(piece).words).toBeNull();
    const recipe = recipeForRatio(piece, { across: 1, down: 1 });
    expect(recipe.words).toEqual(WORDS);
    expect(changesOf(recipe)).toEqual(['cropped', 'lettered']);
    expect(recipeForRatio(pieceWith(WORDS, { disabledSteps: ['words'] }), null).words).toBeNull();
    expect(maybeRecipe(recipeKey(recipe))?.words).toEqual(WORDS);
  });
});

function pieceWith(over: OverWords | null, prep: Partial<Prep> = {}): Cuttable {
  const size = { width: 3000, height: 2000 };
  return { size, trim: null, prep: { ...AS_IT_CAME, ...prep, words: over }, focal: { x: 0.5, y: 0.5 } };
}

/** White at the top, black at the bottom. */
const SKY: Lights = { columns: 1, rows: 2, rgb: [255, 255, 255, 0, 0, 0] };

describe('the contrast of words', () => {
  const contrast = (over: OverWords, prep: Partial<Prep> = {}, lights = SKY) => {
    const piece = pieceWith(over, prep);
    const recipe = recipeForRatio(piece, null);
    return contrastOver(piece, recipe, over, { width: 900, height: 600 }, lights);
  };

  it('is that of WCAG 2.2', () => {
    expect(contrastRatio(luminance(rgbOf('#ffffff')), luminance(rgbOf('#000000')))).toBe(21);
    expect(contrastRatio(luminance(rgbOf('#777777')), luminance(rgbOf('#ffffff')))).toBeCloseTo(4.48, 2);
  });

  it('is taken where they lie', () => {
    expect(contrast({ ...WORDS, place: 'bottom' })).toBeCloseTo(21);
    expect(contrast({ ...WORDS, place: 'top' })).toBeCloseTo(1);
    // Half of what is under them is white: the poorest part counts.
    expect(contrast({ ...WORDS, place: 'middle' })).toBeCloseTo(1);
  });

  it('follows what is done to the picture', () => {
    expect(contrast({ ...WORDS, place: 'bottom' }, { turn: 180 })).toBeCloseTo(1);
    expect(
      contrast({ ...WORDS, place: 'top' }, { crop: { left: 0, top: 0.5, width: 1, height: 0.5 } }),
    ).toBeCloseTo(21);
    const dark = { ...AS_IT_CAME.tone, inks: { dark: '#000000', light: '#333333' } };
    expect(contrast({ ...WORDS, place: 'top' }, { tone: dark })).toBeGreaterThan(10);
  });

  it('on a plate is that with the plate', () => {
    expect(contrast({ ...WORDS, place: 'top', plate: '#000000' })).toBe(21);
  });

  it('on a ground is that with the ground', () => {
    const piece = pieceWith({ ...WORDS, place: 'top', size: 30 });
    const recipe = fittedRecipe(piece, { ratio: { across: 1, down: 2 }, backgroundColour: '#000000' });
    expect(recipe.words && contrastOver(piece, recipe, recipe.words, { width: 500, height: 1000 }, SKY)).toBe(
      21,
    );
  });

  it('has to be more for small words', () => {
    expect(neededContrast(WORDS, { width: 720, height: 480 })).toBe(3);
    expect(neededContrast(WORDS, { width: 300, height: 200 })).toBe(4.5);
  });

  it('says the way out only where it is too little', () => {
    expect(sayContrast(4.57, 4.5, false)).toBe('Contrast 4.5, 4.5 is needed.');
    expect(sayContrast(2.1, 3, false)).toMatch(/lay a plate under them\.$/);
    expect(sayContrast(2.1, 3, true)).toMatch(/Choose other colours\.$/);
  });

  it('offers a plate on which any ink stands out', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 0xffffff }), (number) => {
        const ink = `#${number.toString(16).padStart(6, '0')}`;
        const pair = [ink, plateFor(ink)].map((colour) => luminance(rgbOf(colour)));
        expect(contrastRatio(pair[0] ?? 0, pair[1] ?? 0)).toBeGreaterThanOrEqual(4.5);
      }),
    );
  });
});
