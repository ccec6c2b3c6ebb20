import sharp from 'sharp';
import type { Size } from '#core/media/dimensions.ts';

/** A drawing has no px of its own. It is taken as one of so many on its long edge, which no cut needs more than. */
const DRAWING_EDGE_PX = 4000;
/** Dots per inch at which a drawing comes out at the size that it says itself (SVG, CSS px). */
const OWN_DENSITY = 72;

/** The size in px as which a drawing is taken: never smaller than it says itself. */
export function drawingSize({ width, height }: Size): Size {
  const scale = Math.max(1, DRAWING_EDGE_PX / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}

/**
 * How finely a file has to be drawn to be at least as large as it was taken; undefined for pictures, and for drawings
 * that are so already.
 */
export async function densityFor(path: string, taken: Size): Promise<number | undefined> {
  const { format, width } = await sharp(path, { limitInputPixels: false }).metadata();
  if (format !== 'svg' || width >= taken.width) return undefined;
  // One px more, so that rounding leaves nothing out.
  return (OWN_DENSITY * (taken.width + 1)) / width;
}
