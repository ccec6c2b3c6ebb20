/** A picture's size in px, as seen (EXIF orientation already applied). */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/**
 * The size as seen of a stored picture. EXIF 2.32, tag 0x0112: orientations 5 to 8 lie on their side.
 * Any other number is taken as 1 (upright).
 */
export function sizeAsSeen(stored: Size, exifOrientation: number): Size {
  const lies = exifOrientation >= 5 && exifOrientation <= 8;
  return lies ? { width: stored.height, height: stored.width } : stored;
}

/** The height in whole px that keeps the shape of `size` at `width` px, never under 1. */
export function heightAtWidth(size: Size, width: number): number {
  return Math.max(1, Math.round((width * size.height) / size.width));
}

/** The largest size of the same shape within `box`; never larger than `size` itself. */
export function fitWithin(size: Size, box: Size): Size {
  const scale = Math.min(1, box.width / size.width, box.height / size.height);
  if (scale === 1) return size;
  return {
    width: Math.max(1, Math.round(size.width * scale)),
    height: Math.max(1, Math.round(size.height * scale)),
  };
}

/** Width divided by height. */
export function aspectOf(size: Size): number {
  return size.width / size.height;
}

export type Shape = 'landscape' | 'portrait' | 'square' | 'any';

/** Shapes within this share of square count as square. */
const SQUARE_TOLERANCE = 0.05;

export function shapeOf(size: Size): Exclude<Shape, 'any'> {
  const aspect = aspectOf(size);
  if (Math.abs(aspect - 1) <= SQUARE_TOLERANCE) return 'square';
  return aspect > 1 ? 'landscape' : 'portrait';
}

/** Millions of pixels. */
export function megapixels(size: Size): number {
  return (size.width * size.height) / 1_000_000;
}
