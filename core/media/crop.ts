import { aspectOf, type Size } from './dimensions.ts';

/** A place in a picture, both axes as fractions from 0 (left, top) to 1 (right, bottom). */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A part of a picture in fractions of its width and height, so that it survives a swap of the original. */
export interface CropRect {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** A part of a picture in whole px. */
export interface PixelRect extends Size {
  readonly left: number;
  readonly top: number;
}

/** A shape as two whole numbers, such as 3 and 2. */
export interface Ratio {
  readonly across: number;
  readonly down: number;
}

/**
 * The largest part of a picture with the given ratio that keeps the focal point as near as it can to its place:
 * the point has the same fractions in the part as it had in the picture, clamped to the picture's edges.
 */
export function cropToRatio(size: Size, ratio: Ratio, focal: Point): CropRect {
  const wanted = ratio.across / ratio.down;
  const own = aspectOf(size);
  const width = Math.min(1, wanted / own);
  const height = Math.min(1, own / wanted);
  return { left: startOf(focal.x, width), top: startOf(focal.y, height), width, height };
}

/** Where a part of `length` begins so that a point at `focal` keeps its fraction inside the part. */
function startOf(focal: number, length: number): number {
  const start = focal - focal * length;
  return Math.min(Math.max(0, start), 1 - length);
}

/** The part in whole px of `size`, at least 1 x 1 and never outside. */
export function cropInPixels(size: Size, crop: CropRect): PixelRect {
  const width = Math.min(size.width, Math.max(1, Math.round(crop.width * size.width)));
  const height = Math.min(size.height, Math.max(1, Math.round(crop.height * size.height)));
  return {
    left: Math.min(size.width - width, Math.max(0, Math.round(crop.left * size.width))),
    top: Math.min(size.height - height, Math.max(0, Math.round(crop.top * size.height))),
    width,
    height,
  };
}
