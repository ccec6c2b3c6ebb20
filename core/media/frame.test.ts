import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CropRect } from './crop.ts';
import { cornerMoved, fittedFrame, movedFrame, resizedFrame, scaledFrame } from './frame.ts';

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

const rounded = (frame: CropRect) =>
  Object.fromEntries(
    Object.entries(frame).map(([side, value]) => [side, Math.round(value * 1000) / 1000 + 0]),
  );

describe('a frame, by example', () => {
  const frame = { left: 0.2, top: 0.3, width: 0.4, height: 0.2 };
  const size = { width: 2000, height: 1000 };

  it('is moved by fractions of the picture', () => {
    expect(rounded(movedFrame(frame, 0.1, -0.2))).toEqual({ left: 0.3, top: 0.1, width: 0.4, height: 0.2 });
    expect(rounded(movedFrame(frame, 9, 9))).toEqual({ left: 0.6, top: 0.8, width: 0.4, height: 0.2 });
    expect(rounded(movedFrame(frame, -9, -9))).toEqual({ left: 0, top: 0, width: 0.4, height: 0.2 });
  });

  it.each([
    // A square on a picture twice as wide as high is twice as high as wide, in fractions of it.
    ['from its left top corner', 0.3, { x: 0, y: 0 }, { left: 0.2, top: 0.3, width: 0.3, height: 0.6 }],
    ['from its right bottom corner', 0.2, { x: 1, y: 1 }, { left: 0.4, top: 0.1, width: 0.2, height: 0.4 }],
    ['round its middle', 0.2, { x: 0.5, y: 0.5 }, { left: 0.3, top: 0.2, width: 0.2, height: 0.4 }],
    [
      'as far as the picture goes to the right',
      0.9,
      { x: 0, y: 0 },
      { left: 0.2, top: 0.3, width: 0.35, height: 0.7 },
    ],
    [
      'as far as the picture goes to the left',
      0.9,
      { x: 1, y: 0 },
      { left: 0.25, top: 0.3, width: 0.35, height: 0.7 },
    ],
    [
      'and no smaller than a twentieth',
      0.001,
      { x: 0, y: 0 },
      { left: 0.2, top: 0.3, width: 0.025, height: 0.05 },
    ],
  ])('of a ratio is sized %s', (_how, width, anchor, made) => {
    expect(rounded(resizedFrame(frame, size, { across: 1, down: 1 }, width, anchor))).toEqual(made);
  });

  it('is scaled round its middle, within the picture and not to nothing', () => {
    expect(rounded(scaledFrame(frame, 0.5))).toEqual({ left: 0.3, top: 0.35, width: 0.2, height: 0.1 });
    expect(rounded(scaledFrame(frame, 100))).toEqual({ left: 0, top: 0.15, width: 1, height: 0.5 });
    expect(rounded(scaledFrame(frame, 0.001))).toEqual({ left: 0.35, top: 0.375, width: 0.1, height: 0.05 });
    expect(rounded(scaledFrame({ left: 0, top: 0, width: 0.02, height: 0.5 }, 0.1))).toMatchObject({
      width: 0.02,
    });
  });

  it('that is of its ratio stays, and another keeps its middle and its area', () => {
    const square = { left: 0.1, top: 0.2, width: 0.2, height: 0.4 };
    expect(fittedFrame(square, size, { across: 1, down: 1 })).toBe(square);
    const offByOne = { ...square, width: 0.2 + 1 / 2000 };
    expect(fittedFrame(offByOne, size, { across: 1, down: 1 })).toBe(offByOne);
    // 800 by 200 px becomes 400 by 400.
    expect(rounded(fittedFrame(frame, size, { across: 1, down: 1 }))).toEqual({
      left: 0.3,
      top: 0.2,
      width: 0.2,
      height: 0.4,
    });
    // And 566 by 283 in the shape of 2:1.
    expect(rounded(fittedFrame(frame, size, { across: 2, down: 1 }))).toMatchObject({
      width: 0.283,
      height: 0.283,
    });
  });
});
