import sharp, { type Sharp } from 'sharp';
import { cropInPixels } from '#core/media/crop.ts';
import { heightAtWidth, type Size } from '#core/media/dimensions.ts';
import type { CutFormat } from '#core/media/formats.ts';
import { type Recipe, sizeAfter } from '#core/media/recipe.ts';
import { MEGAPIXEL_LIMIT } from './read-original.ts';

export interface CutOrder {
  /** Size of the original as seen, in px. */
  readonly original: Size;
  readonly recipe: Recipe;
  /** Width of the cut in px; its height follows from the recipe. */
  readonly width: number;
  readonly format: CutFormat;
  /** The encoder's own scale, 1 to 100. */
  readonly quality: number;
  readonly animated: boolean;
}

/** Encoder effort for AVIF (0 to 9): a third of the time of the default for 2 to 4 % more bytes, on painted marshes. */
const AVIF_EFFORT = 2;
const JPEG_GROUND = '#ffffff';

/**
 * Makes a cut from an original: orient, crop, resize (sharp's Lanczos3), convert to sRGB, encode. The same order
 * on the same original gives the same bytes. Carries no metadata; the label is written in when it goes out.
 */
export async function makeCut(originalPath: string, order: CutOrder): Promise<Buffer> {
  const isMoving = order.animated && order.format === 'webp';
  const image = sharp(originalPath, {
    limitInputPixels: MEGAPIXEL_LIMIT * 1_000_000,
    animated: isMoving,
    failOn: 'none',
  }).autoOrient();
  if (order.recipe.crop && !isMoving) image.extract(cropInPixels(order.original, order.recipe.crop));
  const cutSize = sizeAfter(order.original, isMoving ? { crop: null } : order.recipe);
  const height = heightAtWidth(cutSize, order.width);
  image
    .resize({ width: order.width, ...(isMoving ? {} : { height }), fit: 'fill', kernel: 'lanczos3' })
    .toColourspace('srgb');
  return encode(image, order).toBuffer();
}

function encode(image: Sharp, { format, quality }: CutOrder): Sharp {
  switch (format) {
    case 'avif':
      return image.avif({ quality, effort: AVIF_EFFORT });
    case 'webp':
      return image.webp({ quality, effort: 4 });
    case 'jpeg':
      return image.flatten({ background: JPEG_GROUND }).jpeg({ quality, mozjpeg: true });
    case 'png':
      return image.png({ compressionLevel: 9, palette: false });
  }
}
