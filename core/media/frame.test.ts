import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CropRect } from './crop.ts';
import { cornerMoved, movedFrame, resizedFrame, scaledFrame } from './frame.ts';

const share = fc.double({ min: 0, max: 0.9, noNaN: true });
const by = fc.double({ min: -2, max: 2, noNaN: true });
const frame: fc.Arbitrary<CropRect> = fc
  .record({ left: share, top: share, width: share, height: share })
  .map(({ left, top, width, height }) => ({
    left,
    top,
    width: (0.1 + width) * (1 - left),
    height: (0.1 + height) * (1 - top),
  }));
const end = fc.constantFrom<0 | 1>(0, 1);
const corner = fc.record({ x: end, y: end });

/** Within the picture, to within what adding fractions loses. */
function expectInside({ left, top, width, height }: CropRect): void {
  const little = 1e-9;
  expect(Math.min(left, top)).toBeGreaterThanOrEqual(-little);
  expect(Math.max(left + width, top + height)).toBeLessThanOrEqual(1 + little);
  expect(Math.min(width, height)).toBeGreaterThan(0);
}

describe('a frame of any shape', () => {
  it('stays inside the picture however it is moved, drawn or sized', () => {
    fc.assert(
      fc.property(frame, corner, by, by, (one, at, dx, dy) => {
        expectInside(movedFrame(one, dx, dy));
        expectInside(cornerMoved(one, at, dx, dy));
        expectInside(scaledFrame(one, Math.abs(dx)));
      }),
    );
  });

  it('keeps the corner across from the one that is drawn', () => {
    const one = { left: 0.2, top: 0.3, width: 0.5, height: 0.4 };
    const drawn = cornerMoved(one, { x: 0, y: 1 }, 0.1, -0.1);
    expect(drawn.left + drawn.width).toBeCloseTo(0.7, 10);
    expect(drawn.top).toBeCloseTo(0.3, 10);
    expect([drawn.left, drawn.height].map((value) => value.toFixed(2))).toEqual(['0.30', '0.30']);
  });

  it('is sized round its middle, in its own shape', () => {
    const one = { left: 0.4, top: 0.4, width: 0.2, height: 0.1 };
    const larger = scaledFrame(one, 2);
    expect(larger.left + larger.width / 2).toBeCloseTo(0.5, 10);
    expect(larger.width / larger.height).toBeCloseTo(2, 10);
    expect(scaledFrame(one, 100).width).toBeLessThanOrEqual(1);
  });
});

describe('a frame of a ratio', () => {
  it('keeps it within a pixel wherever it is drawn to', () => {
    const size = { width: 3000, height: 2000 };
    const ratio = { across: 4, down: 5 };
    fc.assert(
      fc.property(share, by, (left, width) => {
        const start = { left: left / 2, top: 0.1, width: 0.2, height: 0.375 };
        const drawn = resizedFrame(start, size, ratio, width, { x: 0, y: 0 });
        expectInside(drawn);
        const [wide, high] = [drawn.width * size.width, drawn.height * size.height];
        expect(Math.abs(wide - (high * ratio.across) / ratio.down)).toBeLessThanOrEqual(1);
      }),
    );
  });
});
