import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hasFineColour } from './fine-colour.ts';
import { mosaicOf, mosaicPixels } from './mosaic.ts';

describe('the mosaic that a quality is found on', () => {
  it('is of parts that lie in the picture, each once, and far smaller than it', () => {
    const side = fc.integer({ min: 1, max: 4000 });
    fc.assert(
      fc.property(side, side, (width, height) => {
        const mosaic = mosaicOf({ width, height });
        if (!mosaic) return;
        const { tile, columns, rows, places } = mosaic;
        expect(places).toHaveLength(columns * rows);
        expect(new Set(places.map(({ left, top }) => `${left} ${top}`)).size).toBe(places.length);
        for (const { left, top } of places) {
          expect(Math.min(left, top)).toBeGreaterThanOrEqual(0);
          expect(left + tile).toBeLessThanOrEqual(width);
          expect(top + tile).toBeLessThanOrEqual(height);
        }
        expect(columns * rows * tile * tile * 1.5).toBeLessThan(width * height);
      }),
    );
  });

  it('spreads its parts: no quarter of the picture is without one', () => {
    const size = { width: 1440, height: 960 };
    const places = mosaicOf(size)?.places ?? [];
    for (const [right, bottom] of [
      [false, false],
      [false, true],
      [true, false],
      [true, true],
    ])
      expect(
        places.filter(({ left, top }) => left > size.width / 2 === right && top > size.height / 2 === bottom)
          .length,
      ).toBeGreaterThan(2);
  });

  it('has the pixels of its places', () => {
    const size = { width: 640, height: 640 };
    const pixels = Uint8Array.from({ length: 640 * 640 * 3 }, (_, at) => (Math.floor(at / 3) * 7) % 256);
    const mosaic = mosaicOf(size);
    if (!mosaic) throw new Error('it is large enough');
    const made = mosaicPixels(pixels, size, 3, mosaic);
    const { tile, columns, places } = mosaic;
    for (const [at, { left, top }] of places.entries()) {
      const [x, y] = [(at % columns) * tile + 5, Math.floor(at / columns) * tile + 9];
      expect(made[(y * columns * tile + x) * 3]).toBe(pixels[((top + 9) * 640 + left + 5) * 3]);
    }
  });
});

describe('fine colour', () => {
  const size = { width: 40, height: 40 };
  const painted = (at: (x: number, y: number) => readonly [number, number, number]) =>
    Uint8Array.from(
      Array.from({ length: 1600 }, (_, place) => at(place % 40, Math.floor(place / 40))).flat(),
    );

  it('is in red letters and thin lines of colour, not in grey ones, nor in the grain of water', () => {
    const red = painted((x) => (x % 9 === 4 ? [220, 30, 20] : [255, 255, 255]));
    const grey = painted((x) => (x % 9 === 4 ? [20, 20, 20] : [255, 255, 255]));
    const water = painted((x, y) => [60 + ((x * 7 + y * 13) % 12), 90 + ((x * 5 + y * 3) % 12), 110]);
    expect(hasFineColour(red, size, 3)).toBe(true);
    expect(hasFineColour(grey, size, 3)).toBe(false);
    expect(hasFineColour(water, size, 3)).toBe(false);
  });

  it('is not in a picture that has no colour', () => {
    expect(hasFineColour(new Uint8Array(1600), size, 1)).toBe(false);
  });
});
