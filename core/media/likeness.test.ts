import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  aimedLikeness,
  asAlike,
  type BetweenStep,
  betweenSteps,
  firstQuality,
  foretoldQuality,
  LIKENESS_TOLERANCE,
  type LossyFormat,
  nextQuality,
  QUALITY_RANGE,
  type Sample,
} from './alike.ts';
import { qualityAtBytes, sampleAt } from './curve-point.ts';
import { type Luma, likenessOf, lumaOf } from './likeness.ts';

function luma(width: number, height: number, at: (x: number, y: number) => number): Luma {
  const values = new Uint8Array(width * height);
  for (let y = 0; y < height; y += 1) for (let x = 0; x < width; x += 1) values[y * width + x] = at(x, y);
  return { width, height, values };
}

const waves = (x: number, y: number) => 128 + 60 * Math.sin(x / 5) + 50 * Math.cos(y / 7);
const noise = (x: number, y: number) => ((x * 7919 + y * 104729) % 41) - 20;

describe('likeness', () => {
  it('is 1 for the same picture, and less the more it differs', () => {
    const picture = luma(120, 90, waves);
    expect(likenessOf(picture, picture).mean).toBeCloseTo(1, 10);
    const little = likenessOf(
      picture,
      luma(120, 90, (x, y) => waves(x, y) + noise(x, y) / 4),
    ).mean;
    const much = likenessOf(
      picture,
      luma(120, 90, (x, y) => waves(x, y) + noise(x, y)),
    ).mean;
    expect(little).toBeLessThan(1);
    expect(much).toBeLessThan(little);
  });

  it('follows the formula for flat pictures, where only brightness counts', () => {
    const [a, b, c1] = [100, 120, 6.5025];
    const expected = (2 * a * b + c1) / (a * a + b * b + c1);
    expect(
      likenessOf(
        luma(40, 40, () => a),
        luma(40, 40, () => b),
      ).mean,
    ).toBeCloseTo(expected, 8);
  });

  it('finds the place where two pictures differ most', () => {
    const picture = luma(400, 300, waves);
    const spoiled = luma(400, 300, (x, y) =>
      x > 300 && x < 360 && y > 200 && y < 260 ? 128 + noise(x, y) * 4 : waves(x, y),
    );
    const { worst } = likenessOf(picture, spoiled);
    expect(worst.x).toBeGreaterThan(0.7);
    expect(worst.y).toBeGreaterThan(0.6);
    expect(worst.likeness).toBeLessThan(0.6);
  });

  it('is between -1 and 1 for any two pictures of a size, also tiny ones', () => {
    const side = fc.integer({ min: 1, max: 24 });
    fc.assert(
      fc.property(side, side, fc.integer(), (width, height, seed) => {
        const one = luma(width, height, (x, y) => Math.abs((x * 31 + y * 17 + seed) % 256));
        const { mean, worst } = likenessOf(one, luma(width, height, waves));
        expect(mean).toBeLessThanOrEqual(1.000001);
        expect(mean).toBeGreaterThanOrEqual(-1);
        for (const part of [worst.x, worst.y]) {
          expect(part).toBeGreaterThanOrEqual(0);
          expect(part).toBeLessThanOrEqual(1);
        }
      }),
    );
  });

  it('is not said of pictures of different sizes', () => {
    expect(() => likenessOf(luma(20, 20, waves), luma(20, 21, waves))).toThrow(RangeError);
  });
});

describe('the quality at which a file looks as alike as is wanted', () => {
  /** An encoder whose loss falls with quality as on photographs, in steps as coarse as `step`, and whose files grow. */
  const encoder =
    (from: number, fall: number, step = 1) =>
    (quality: number): Sample => {
      const felt = Math.round(quality / step) * step;
      return { quality, bytes: felt * felt, likeness: 1 - from * Math.exp(-fall * felt) };
    };
  const WANTED = 0.985;
  const aimed = aimedLikeness(WANTED, true);

  function searched(
    encode: (quality: number) => Sample,
    tries: number,
    first = 85,
    format: LossyFormat = 'avif',
  ) {
    const samples: Sample[] = [];
    for (;;) {
      const next = nextQuality(format, samples, aimed, first, tries);
      if (next === null) return samples;
      samples.push(encode(next));
    }
  }
  /** Encoders that come to what is wanted somewhere within their range. */
  const within = fc
    .tuple(fc.double({ min: 40, max: 97, noNaN: true }), fc.double({ min: 0.02, max: 0.06, noNaN: true }))
    .map(([at, fall]) => encoder(0.0165 * Math.exp(fall * at), fall));

  it('is within the tolerance, wherever the search begins', () => {
    fc.assert(
      fc.property(within, fc.integer({ min: 20, max: 100 }), (encode, first) => {
        const best = asAlike(searched(encode, 8, first), WANTED);
        expect(Math.abs((best?.likeness ?? 0) - WANTED)).toBeLessThanOrEqual(LIKENESS_TOLERANCE);
      }),
    );
  });

  it('is never looked for twice at one quality, nor more often than it may', () => {
    fc.assert(
      fc.property(within, fc.integer({ min: 1, max: 8 }), (encode, tries) => {
        const qualities = searched(encode, tries).map(({ quality }) => quality);
        expect(new Set(qualities).size).toBe(qualities.length);
        expect(qualities.length).toBeLessThanOrEqual(tries);
      }),
    );
  });

  it('is foretold between two near samples as it would be found', () => {
    fc.assert(
      fc.property(within, (encode) => {
        const exact = Array.from({ length: 101 }, (_, quality) => encode(quality)).findIndex(
          ({ likeness }) => likeness >= aimed,
        );
        // Higher up each step is a leap, and is tried.
        fc.pre(exact >= 33 && exact <= 91);
        for (const format of ['avif', 'jpeg'] as const) {
          const foretold = foretoldQuality(format, [encode(exact - 3), encode(exact + 3)], aimed);
          expect(Math.abs((foretold ?? 0) - exact)).toBeLessThanOrEqual(1);
          expect(foretoldQuality(format, [encode(exact + 3)], aimed)).toBeNull();
          expect(foretoldQuality(format, [encode(exact + 3), encode(exact + 5)], aimed)).toBeNull();
        }
      }),
    );
  });

  it('is rather too good than too poor where steps are coarse, and the best there is where none is good enough', () => {
    const coarse = encoder(0.0165 * Math.exp(0.05 * 90), 0.05, 12);
    expect(asAlike(searched(coarse, 8), WANTED)?.likeness).toBeGreaterThanOrEqual(
      WANTED - LIKENESS_TOLERANCE,
    );
    const poor = encoder(0.9, 0.01);
    expect(asAlike(searched(poor, 8), WANTED)?.quality).toBe(QUALITY_RANGE.most);
    expect(asAlike([], WANTED)).toBeUndefined();
  });

  /** A JPEG whose loss grows with the share of its table, as on grained photographs. */
  const tabled =
    (from: number, power: number) =>
    (quality: number): Sample => {
      const percent = quality < 50 ? 5000 / quality : Math.max(200 - 2 * quality, 1);
      return { quality, bytes: quality * quality, likeness: 1 - from * (percent / 10) ** power };
    };

  it('is the best of all qualities of JPEG, however near to the end of its scale', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 60, max: 98 }),
        fc.double({ min: 0.9, max: 1.8, noNaN: true }),
        fc.integer({ min: -6, max: 4 }),
        (at, power, off) => {
          const percent = 200 - 2 * at;
          const encode = tabled(0.0165 / (percent / 10) ** power, power);
          const best = asAlike(searched(encode, 6, at + off, 'jpeg'), WANTED);
          // Lower down, the next quality is as near as can be told.
          expect(Math.abs((best?.quality ?? 0) - at)).toBeLessThanOrEqual(at > 88 ? 0 : 2);
        },
      ),
    );
  });

  it('is a step between two of JPEG where these are leaps, and of no other format', () => {
    const sample = (quality: number, likeness: number, between?: BetweenStep): Sample => ({
      quality,
      bytes: quality,
      likeness,
      ...(between ? { between } : {}),
    });
    const leap = [sample(93, 0.95), sample(96, 0.9805), sample(97, 0.9889)];
    const asked = betweenSteps('jpeg', leap, WANTED);
    expect(asked).toEqual([
      { quality: 97, between: 'coarser-table' },
      { quality: 96, between: 'no-trellis' },
    ]);
    const stillFar = [...leap, sample(97, 0.9802, 'coarser-table')];
    expect(betweenSteps('jpeg', stillFar, WANTED)).toEqual([{ quality: 96, between: 'no-trellis' }]);
    const near = [...leap, sample(97, 0.9857, 'coarser-table')];
    expect(betweenSteps('jpeg', near, WANTED)).toEqual([]);
    expect(asAlike(near, WANTED)?.between).toBe('coarser-table');
    expect(betweenSteps('webp', leap, WANTED)).toEqual([]);
    expect(betweenSteps('jpeg', [sample(95, 0.97), sample(97, 0.9889)], WANTED)).toEqual([]);
    expect(betweenSteps('jpeg', [sample(96, 0.984), sample(97, 0.9889)], WANTED)).toEqual([]);
  });

  it('begins lower the smoother the picture, and higher the more is wanted', () => {
    for (const format of ['avif', 'webp', 'jpeg'] as const) {
      const smooth = firstQuality(format, 0.997, WANTED);
      expect(smooth).toBeLessThan(firstQuality(format, 0.97, WANTED));
      expect(firstQuality(format, 0.997, 0.99)).toBeGreaterThan(smooth);
      expect(firstQuality(format, 1, WANTED)).toBe(QUALITY_RANGE.least);
    }
  });
});

describe('a point on the curve', () => {
  const samples: readonly Sample[] = [
    { quality: 90, bytes: 300, likeness: 0.99 },
    { quality: 50, bytes: 100, likeness: 0.9 },
    { quality: 70, bytes: 160, likeness: 0.96 },
  ];

  it('that was measured is itself, and one between two lies between them', () => {
    expect(sampleAt(samples, 70)).toEqual({ quality: 70, bytes: 160, likeness: 0.96 });
    expect(sampleAt(samples, 60)).toMatchObject({ quality: 60, bytes: 130 });
    expect(sampleAt(samples, 60)?.likeness).toBeCloseTo(0.93, 10);
  });

  it('outside what was measured is thought to be like the nearest', () => {
    expect(sampleAt(samples, 20)).toEqual({ quality: 20, bytes: 100, likeness: 0.9 });
    expect(sampleAt(samples, 99)).toEqual({ quality: 99, bytes: 300, likeness: 0.99 });
    expect(sampleAt([], 50)).toBeUndefined();
  });

  it('is found by its weight, within what was measured', () => {
    expect([0, 100, 130, 160, 230, 999].map((bytes) => qualityAtBytes(samples, bytes))).toEqual([
      50, 50, 60, 70, 80, 90,
    ]);
    expect(qualityAtBytes([], 100)).toBeUndefined();
  });

  it('is the same quality again when it is found by the weight it is thought to have', () => {
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 90 }), (quality) => {
        const found = qualityAtBytes(samples, sampleAt(samples, quality)?.bytes ?? 0) ?? 0;
        expect(Math.abs(found - quality)).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe('brightness', () => {
  it('weighs red, green and blue as BT.601 does, and leaves alpha out', () => {
    const pixels = Uint8Array.from([255, 0, 0, 9, 0, 255, 0, 9, 0, 0, 255, 9, 255, 255, 255, 9]);
    expect([...lumaOf(pixels, { width: 4, height: 1 }, 4).values]).toEqual([76, 150, 29, 255]);
    expect([...lumaOf(Uint8Array.from([7, 0, 200, 0]), { width: 2, height: 1 }, 2).values]).toEqual([7, 200]);
  });
});
