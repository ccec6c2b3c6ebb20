import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cropInPixels, cropToRatio } from './crop.ts';
import { fitWithin, heightAtWidth, shapeOf, sizeAsSeen } from './dimensions.ts';
import { isOversized, isStretched, timesEnlarged } from './fit.ts';
import { cutFormats } from './formats.ts';
import { chosenWidth, widthLadder } from './ladder.ts';
import { AS_IT_CAME, recipeForRatio, sizeAfter, WHOLE } from './recipe.ts';
import { maybeRecipe, recipeKey } from './recipe-key.ts';
import { trueShapeRows } from './rows.ts';
import { guessBytes, sayBytes } from './weight.ts';

const side = fc.integer({ min: 1, max: 20_000 });
const size = fc.record({ width: side, height: side });
const ratio = fc.record({ across: fc.integer({ min: 1, max: 100 }), down: fc.integer({ min: 1, max: 100 }) });
const focal = fc.record({
  x: fc.double({ min: 0, max: 1, noNaN: true }),
  y: fc.double({ min: 0, max: 1, noNaN: true }),
});

describe('size as seen', () => {
  it.each([
    [1, 6000, 4000],
    [3, 6000, 4000],
    [6, 4000, 6000],
    [8, 4000, 6000],
    [99, 6000, 4000],
  ])('with EXIF orientation %i is %i x %i', (orientation, width, height) => {
    expect(sizeAsSeen({ width: 6000, height: 4000 }, orientation)).toEqual({ width, height });
  });

  it('keeps the shape at a width, and never falls under 1 px', () => {
    expect(heightAtWidth({ width: 6000, height: 4000 }, 330)).toBe(220);
    expect(heightAtWidth({ width: 10_000, height: 10 }, 100)).toBe(1);
  });

  it('is never enlarged to fit a box', () => {
    fc.assert(
      fc.property(size, size, (picture, box) => {
        const fitted = fitWithin(picture, box);
        expect(fitted.width).toBeLessThanOrEqual(picture.width);
        expect(fitted.height).toBeLessThanOrEqual(Math.max(1, box.height));
      }),
    );
  });

  it('is square within a twentieth', () => {
    expect(shapeOf({ width: 104, height: 100 })).toBe('square');
    expect(shapeOf({ width: 106, height: 100 })).toBe('landscape');
    expect(shapeOf({ width: 90, height: 100 })).toBe('portrait');
  });
});

describe('crop to a ratio', () => {
  it('is the largest part of that ratio', () => {
    const crop = cropToRatio({ width: 6000, height: 4000 }, { across: 16, down: 9 }, { x: 0.5, y: 0.5 });
    expect(crop.width).toBe(1);
    expect(cropInPixels({ width: 6000, height: 4000 }, crop)).toEqual({
      left: 0,
      top: 313,
      width: 6000,
      height: 3375,
    });
  });

  it('keeps the focal point at its fraction of the part, clamped to the edges', () => {
    const crop = cropToRatio({ width: 6000, height: 4000 }, { across: 1, down: 1 }, { x: 0.3, y: 0.5 });
    expect((0.3 - crop.left) / crop.width).toBeCloseTo(0.3);
    expect(
      cropToRatio({ width: 6000, height: 4000 }, { across: 1, down: 1 }, { x: 1, y: 0.5 }).left,
    ).toBeCloseTo(1 / 3);
  });

  it('never leaves the picture and always holds the focal point', () => {
    fc.assert(
      fc.property(size, ratio, focal, (picture, wanted, point) => {
        const crop = cropToRatio(picture, wanted, point);
        const pixels = cropInPixels(picture, crop);
        expect(pixels.left).toBeGreaterThanOrEqual(0);
        expect(pixels.left + pixels.width).toBeLessThanOrEqual(picture.width);
        expect(pixels.top + pixels.height).toBeLessThanOrEqual(picture.height);
        expect(point.x).toBeGreaterThanOrEqual(crop.left - 1e-9);
        expect(point.x).toBeLessThanOrEqual(crop.left + crop.width + 1e-9);
      }),
    );
  });
});

describe('recipe', () => {
  it('has a key that reads back as the same key', () => {
    fc.assert(
      fc.property(size, ratio, focal, (picture, wanted, point) => {
        const recipe = recipeForRatio({ size: picture, trim: null, prep: AS_IT_CAME, focal: point }, wanted);
        const read = maybeRecipe(recipeKey(recipe));
        expect(read && recipeKey(read)).toBe(recipeKey(recipe));
      }),
    );
  });

  it.each(['', 'c', 'c1-2-3', 'c0-0-0-100', 'c900000-0-900000-100', '../whole', 'c1-1-1-1-1'])(
    'is not read from "%s"',
    (key) => {
      expect(maybeRecipe(key)).toBeUndefined();
    },
  );

  it('is the whole picture where the ratio is its own', () => {
    expect(
      recipeForRatio(
        { size: { width: 6000, height: 4000 }, trim: null, prep: AS_IT_CAME, focal: { x: 0.2, y: 0.2 } },
        { across: 3, down: 2 },
      ),
    ).toEqual(WHOLE);
    expect(sizeAfter({ width: 600, height: 400 }, WHOLE)).toEqual({ width: 600, height: 400 });
  });
});

describe('width ladder', () => {
  it('takes each shown width at 1x and 2x, and merges neighbours within 15 %', () => {
    expect(widthLadder([350, 365, 331], 6000)).toEqual([365, 730]);
    expect(widthLadder([330, 720], 6000)).toEqual([330, 720, 1440]);
  });

  it('never goes over the cut', () => {
    expect(widthLadder([720], 1000)).toEqual([720, 1000]);
    expect(widthLadder([720], 500)).toEqual([500]);
  });

  it('is ascending, within the cut, and serves every shown width that the cut can', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 40, max: 3000 }), { minLength: 1, maxLength: 8 }),
        side,
        (shown, cut) => {
          const ladder = widthLadder(shown, cut);
          expect([...ladder].sort((a, b) => a - b)).toEqual(ladder);
          expect(Math.max(...ladder)).toBeLessThanOrEqual(cut);
          for (const width of shown)
            expect(chosenWidth(ladder, width, 1)).toBeGreaterThanOrEqual(Math.min(width, cut));
        },
      ),
    );
  });
});

describe('fit', () => {
  it('says how many times a cut is enlarged', () => {
    expect(timesEnlarged(300, 600, 1)).toBe(2);
    expect(timesEnlarged(600, 300, 2)).toBe(1);
  });

  it('takes over 1 % of another shape for stretched', () => {
    expect(isStretched({ width: 300, height: 200 }, { width: 302, height: 200 })).toBe(false);
    expect(isStretched({ width: 300, height: 200 }, { width: 304, height: 200 })).toBe(true);
  });

  it('takes over 2.25 times the pixels for oversized', () => {
    expect(isOversized(150, 100)).toBe(false);
    expect(isOversized(151, 100)).toBe(true);
  });
});

describe('formats of cuts', () => {
  it('keep transparency and movement, and leave tiny cuts alone', () => {
    expect(cutFormats({ alpha: false, animated: false, widest: 1440 })).toEqual(['avif', 'webp', 'jpeg']);
    expect(cutFormats({ alpha: true, animated: false, widest: 1440 })).toEqual(['avif', 'webp', 'png']);
    expect(cutFormats({ alpha: false, animated: true, widest: 640 })).toEqual(['webp', 'jpeg']);
    expect(cutFormats({ alpha: false, animated: false, widest: 32 })).toEqual(['jpeg']);
  });
});

describe('weight', () => {
  it.each([
    [999, '999 B'],
    [41_200, '41 kB'],
    [9_400_000, '9.4 MB'],
    [150_000_000, '150 MB'],
  ])('of %i is said as %s', (bytes, words) => {
    expect(sayBytes(bytes)).toBe(words);
  });

  it('is guessed lower for newer formats', () => {
    expect(guessBytes(720, 480, 'avif')).toBeLessThan(guessBytes(720, 480, 'webp'));
    expect(guessBytes(720, 480, 'webp')).toBeLessThan(guessBytes(720, 480, 'jpeg'));
  });
});

describe('true-shape rows', () => {
  it('are flush, in order, and hold every picture once', () => {
    const aspects = fc.array(fc.double({ min: 0.5, max: 2.8, noNaN: true }), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(aspects, fc.integer({ min: 300, max: 2000 }), (shapes, width) => {
        const rows = trueShapeRows(shapes, width, 150, 10);
        expect(
          rows.flatMap(({ from, to }) => Array.from({ length: to - from }, (_, at) => from + at)),
        ).toEqual(shapes.map((_, at) => at));
        for (const { from, to, height } of rows.slice(0, -1)) {
          const used =
            shapes.slice(from, to).reduce((sum, aspect) => sum + aspect * height, 0) + 10 * (to - from - 1);
          expect(used).toBeCloseTo(width, 3);
        }
      }),
    );
  });

  it('is in its shape to half a px, wherever it is framed and however small', () => {
    const side = fc.integer({ min: 200, max: 9000 });
    const part = fc.integer({ min: 1, max: 21 });
    fc.assert(
      fc.property(
        side,
        side,
        part,
        part,
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        (width, height, across, down, share) => {
          const whole = cropToRatio({ width, height }, { across, down }, { x: 0.5, y: 0.5 });
          const framed = { left: 0, top: 0, width: whole.width * share, height: whole.height * share };
          const pixels = cropInPixels({ width, height }, framed);
          fc.pre(Math.min(pixels.width, pixels.height) > 1);
          const off =
            across >= down
              ? pixels.width - (pixels.height * across) / down
              : pixels.height - (pixels.width * down) / across;
          expect(Math.abs(off)).toBeLessThanOrEqual(0.501);
        },
      ),
    );
  });
});
