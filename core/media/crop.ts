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

/**
 * The part in whole px of `size`, at least 1 x 1 and never outside. The shorter side is rounded, and the longer follows
 * from it: so the shape is kept to within half a px, where sides rounded by themselves are off by up to 2 px at 3:1.
 */
export function cropInPixels(size: Size, crop: CropRect): PixelRect {
  const [wide, high] = [crop.width * size.width, crop.height * size.height];
  const isWide = wide >= high;
  const shape = Math.max(wide, high) / Math.max(Math.min(wide, high), Number.EPSILON);
  const [most, mostAcross] = isWide ? [size.width, size.height] : [size.height, size.width];
  const rounded = within(Math.round(Math.min(wide, high)), mostAcross);
  // Rounded up, the longer side may not fit any more.
  const shorter = Math.round(rounded * shape) > most ? within(Math.floor(most / shape), mostAcross) : rounded;
  const longer = within(Math.round(shorter * shape), most);
  const [width, height] = isWide ? [longer, shorter] : [shorter, longer];
  return {
    left: Math.min(size.width - width, Math.max(0, Math.round(crop.left * size.width))),
    top: Math.min(size.height - height, Math.max(0, Math.round(crop.top * size.height))),
    width,
    height,
  };
}

const within = (px: number, most: number): number => Math.min(most, Math.max(1, px));
