import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { insideBorder, type RgbPicture } from './border.ts';
import { needsHand, sayCondition } from './condition.ts';
import { blocksShow, type GreyPicture, wasEnlarged } from './detail.ts';
import { ALIKE_BITS, bitsApart, lookHash, nearQuarters, quartersOf } from './lookalike.ts';
import { AS_IT_CAME, recipeForRatio, sizeAfter, trimmedSize } from './recipe.ts';
import { changesOf } from './recipe-says.ts';

/** A repeatable scatter of numbers from 0 to 1. */
function scatter(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
}

const grey = (paint: (x: number, y: number) => number) =>
  Uint8Array.from({ length: 1024 }, (_, at) => paint(at % 32, Math.floor(at / 32)));
const hex = fc.bigInt({ min: 0n, max: 2n ** 64n - 1n }).map((bits) => bits.toString(16).padStart(16, '0'));

describe('a look', () => {
  const random = scatter(21);
  const patches = Array.from({ length: 64 }, () => 30 + random() * 180);
  /** Patches of light and dark, as pictures are. */
  const hills = (x: number, y: number) => patches[(y >> 2) * 8 + (x >> 2)] ?? 0;
  it('stays the same in other light, and nearly so under noise', () => {
    const noise = scatter(4);
    const look = lookHash(grey(hills));
    expect(bitsApart(look, lookHash(grey((x, y) => hills(x, y) * 0.7 + 20)))).toBeLessThanOrEqual(2);
    expect(bitsApart(look, lookHash(grey((x, y) => hills(x, y) + noise() * 6 - 3)))).toBeLessThanOrEqual(
      ALIKE_BITS,
    );
  });

  it('is another for another picture', () => {
    const other = lookHash(grey((x, y) => 128 + 100 * Math.sin((x * y) / 40)));
    expect(bitsApart(lookHash(grey(hills)), other)).toBeGreaterThan(ALIKE_BITS * 2);
  });

  it('is read from 32 x 32 px and nothing else', () => {
    expect(() => lookHash(new Uint8Array(1000))).toThrow(RangeError);
  });

  it('apart by at most 6 bits is always met in one of the near quarters', () => {
    fc.assert(
      fc.property(
        hex,
        fc.uniqueArray(fc.integer({ min: 0, max: 63 }), { maxLength: ALIKE_BITS }),
        (look, flipped) => {
          const other = flipped
            .reduce((bits, bit) => bits ^ (1n << BigInt(bit)), BigInt(`0x${look}`))
            .toString(16)
            .padStart(16, '0');
          expect(bitsApart(look, other)).toBe(flipped.length);
          const near = quartersOf(look).map(nearQuarters);
          expect(quartersOf(other).some((quarter, at) => near[at]?.includes(quarter))).toBe(true);
        },
      ),
    );
  });
});

/** A picture with a frame of `edge` px in one colour round a busy middle. */
function framed(edge: number, colour: readonly [number, number, number], busy = 1): RgbPicture {
  const [width, height] = [200, 150];
  const random = scatter(9);
  const pixels = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const isFrame = x < edge || y < edge || x >= width - edge || y >= height - edge;
      const drawn = !isFrame && random() < busy;
      for (let c = 0; c < 3; c += 1)
        pixels[(y * width + x) * 3 + c] = drawn ? 30 + random() * 90 : (colour[c] ?? 0);
    }
  }
  return { pixels, width, height };
}

describe('a baked-in border', () => {
  it.each([4, 10, 25])('of %i px is found to the px', (edge) => {
    const inside = insideBorder(framed(edge, [244, 241, 234]));
    expect(inside?.left).toBeCloseTo(edge / 200, 5);
    expect(inside?.top).toBeCloseTo(edge / 150, 5);
    expect(inside?.width).toBeCloseTo((200 - 2 * edge) / 200, 5);
  });

  it('is not seen where there is none, nor round a chart on white paper', () => {
    expect(insideBorder(framed(0, [244, 241, 234]))).toBeNull();
    expect(insideBorder(framed(12, [255, 255, 255], 0.08))).toBeNull();
  });

  it('is not a plain sky, which has no end that is sharp all round', () => {
    const [width, height] = [120, 90];
    const pixels = Uint8Array.from({ length: width * height * 3 }, (_, at) => {
      const y = Math.floor(at / 3 / width);
      return y < 40 ? 200 + y / 10 : 40 + ((at * 7919) % 80);
    });
    expect(insideBorder({ pixels, width, height })).toBeNull();
  });
});

/** A strip of grain, `coarse` px a grain. */
function strip(coarse: number): GreyPicture {
  const [width, height] = [1024, 64];
  const random = scatter(3);
  const grains = Array.from({ length: (width / coarse + 2) * (height + 2) }, () => random() * 255);
  const pixels = Uint8Array.from({ length: width * height }, (_, at) => {
    const [x, y] = [(at % width) / coarse, Math.floor(at / width)];
    const [left, share] = [Math.floor(x), x - Math.floor(x)];
    const smooth = share * share * (3 - 2 * share);
    const row = y * (width / coarse + 2);
    return (grains[row + left] ?? 0) * (1 - smooth) + (grains[row + left + 1] ?? 0) * smooth;
  });
  return { pixels, width, height };
}

describe('what was done to a picture before', () => {
  it('enlarged many times is seen, sharp is not', () => {
    expect(wasEnlarged(strip(1))).toBe(false);
    expect(wasEnlarged(strip(8))).toBe(true);
  });

  it('a flat patch tells nothing', () => {
    expect(wasEnlarged({ pixels: new Uint8Array(1024 * 64).fill(120), width: 1024, height: 64 })).toBe(false);
  });

  it('blocks of eight are seen', () => {
    const random = scatter(5);
    const levels = Array.from({ length: 200 }, () => 60 + random() * 120);
    const pixels = Uint8Array.from(
      { length: 1024 * 64 },
      (_, at) => levels[Math.floor((at % 1024) / 8)] ?? 0,
    );
    expect(blocksShow({ pixels, width: 1024, height: 64 })).toBe(true);
    expect(blocksShow(strip(1))).toBe(false);
  });

  it('is said in a sentence each, and what needs a hand is told apart', () => {
    const inside = { left: 0.1, top: 0.1, width: 0.8, height: 0.8 };
    expect(sayCondition({ code: 'border', inside })).toBe('A border is part of the picture.');
    expect(needsHand({ code: 'border', inside })).toBe(true);
    expect(needsHand({ code: 'turned' })).toBe(false);
    expect(sayCondition({ code: 'wide-colours', profile: 'Wide' })).toContain('(Wide)');
  });
});

describe('a trim', () => {
  const size = { width: 3000, height: 2000 };
  const trim = { left: 0.1, top: 0.1, width: 0.8, height: 0.8 };
  const focal = { x: 0.5, y: 0.5 };

  it('leaves the border out of every cut, and is no change to the picture', () => {
    const whole = recipeForRatio({ size, trim, prep: AS_IT_CAME, focal }, null);
    expect(sizeAfter(size, whole)).toEqual({ width: 2400, height: 1600 });
    expect(trimmedSize(size, trim)).toEqual({ width: 2400, height: 1600 });
    expect(changesOf(whole)).toEqual([]);
  });

  it('a crop to a ratio stays inside it, and is a change', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (across, down, at) => {
          const recipe = recipeForRatio(
            { size, trim, prep: AS_IT_CAME, focal: { x: at, y: 1 - at } },
            { across, down },
          );
          const inside = sizeAfter(size, recipe);
          expect(recipe.trim).toEqual(trim);
          expect(inside.width).toBeLessThanOrEqual(2400);
          expect(inside.height).toBeLessThanOrEqual(1600);
        },
      ),
    );
    expect(
      changesOf(recipeForRatio({ size, trim, prep: AS_IT_CAME, focal }, { across: 1, down: 1 })),
    ).toEqual(['cropped']);
  });
});
