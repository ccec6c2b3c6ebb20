import { describe, expect, it } from 'vitest';
import type { Lights } from './over-contrast.ts';
import { isUnderMark } from './under-mark.ts';

const grid = (side: number, at: (x: number, y: number) => number): Lights => ({
  columns: side,
  rows: side,
  rgb: Array.from({ length: side * side }, (_, place) => at(place % side, Math.floor(place / side))).flatMap(
    (level) => [level, level, level],
  ),
});
const slope = (x: number, y: number) => Math.min(255, x * 6 + y * 2);
const marked = (share: number) => (x: number, y: number) =>
  (x * 7 + y * 13) % 100 < share * 100 ? 240 : slope(x, y);

describe('a comp under its mark', () => {
  it('is its original as long as most of it shows', () => {
    expect(isUnderMark(grid(32, marked(0.3)), grid(32, slope))).toBe(true);
    expect(isUnderMark(grid(32, marked(0.7)), grid(32, slope))).toBe(false);
  });

  it('is told from another picture, also where that is as light', () => {
    expect(
      isUnderMark(
        grid(32, slope),
        grid(32, (x, y) => slope(31 - x, y)),
      ),
    ).toBe(false);
    expect(
      isUnderMark(
        grid(32, slope),
        grid(32, (x, y) => slope(x, y) + 3),
      ),
    ).toBe(false);
    expect(
      isUnderMark(
        grid(32, slope),
        grid(32, (x, y) => slope(x, y) + 1),
      ),
    ).toBe(true);
  });

  it('is not known by a ground that both have in common', () => {
    const thing = (left: number) => (x: number, y: number) =>
      x > left && x < left + 9 && y > 9 && y < 22 ? 40 + y * 5 : 255;
    expect(isUnderMark(grid(32, thing(4)), grid(32, thing(18)))).toBe(false);
    expect(isUnderMark(grid(32, thing(4)), grid(32, thing(4)))).toBe(true);
    expect(
      isUnderMark(
        grid(32, thing(4)),
        grid(32, () => 255),
      ),
    ).toBe(false);
  });

  it('is not compared across grids, or without any', () => {
    expect(isUnderMark(grid(32, slope), grid(16, slope))).toBe(false);
    expect(isUnderMark(grid(0, slope), grid(0, slope))).toBe(false);
  });
});
