import { aspectOf, type Size } from './dimensions.ts';

/** Shapes further apart than this share look stretched. */
const STRETCH_TOLERANCE = 0.01;

/** A smallest candidate with more than this many times the pixels needed is oversized. */
const OVERSIZE_FACTOR = 2.25;

/** How many times each px of the cut is enlarged at `shownWidth` on a screen of `density`; 1 or less is none. */
export function timesEnlarged(cutWidth: number, shownWidth: number, density: 1 | 2): number {
  return (shownWidth * density) / cutWidth;
}

/** Whether a box of `shown` gives the cut another shape, by more than 1 %. */
export function isStretched(cut: Size, shown: Size): boolean {
  return Math.abs(aspectOf(shown) / aspectOf(cut) - 1) > STRETCH_TOLERANCE;
}

/** Whether the smallest file on offer carries over 2.25 times the pixels that `shownWidth` needs. */
export function isOversized(smallestWidth: number, shownWidth: number): boolean {
  return (smallestWidth / shownWidth) ** 2 > OVERSIZE_FACTOR;
}
