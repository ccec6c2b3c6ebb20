import type { CropRect } from './crop.ts';

/** Fractions are kept in steps of a millionth: far under 1 px on any original that is taken. */
export const STEPS = 1_000_000;

/** A rectangle in whole steps, as its key says it: what is computed from a recipe and from its key is the same. */
export function inSteps({ left, top, width, height }: CropRect): CropRect {
  const start = (fraction: number) => Math.round(fraction * STEPS);
  const extent = (fraction: number, from: number) =>
    Math.max(1, Math.min(Math.round(fraction * STEPS), STEPS - start(from)));
  return {
    left: start(left) / STEPS,
    top: start(top) / STEPS,
    width: extent(width, left) / STEPS,
    height: extent(height, top) / STEPS,
  };
}
