import sharp, { type Sharp } from 'sharp';
import type { Size } from '#core/media/dimensions.ts';
import { type Luma, lumaOf } from '#core/media/likeness.ts';

/** A picture's pixels, row by row, of 1 to 4 channels. */
export interface Pixels extends Size {
  readonly data: Uint8Array;
  readonly channels: 1 | 2 | 3 | 4;
}

export async function pixelsOf(image: Sharp): Promise<Pixels> {
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
}

export const imageOf = ({ data, width, height, channels }: Pixels): Sharp =>
  sharp(data, { raw: { width, height, channels } });

/** Brightness of pixels, as they are seen on a white page where they are transparent. */
export function lumaOfPixels(pixels: Pixels): Promise<Luma> | Luma {
  const { data, channels } = pixels;
  return channels === 4 || channels === 2 ? lumaOn(imageOf(pixels)) : lumaOf(data, pixels, channels);
}

/** Brightness as it is seen on a white page, or on another ground, where the picture is transparent. */
export async function lumaOn(image: Sharp, ground = '#ffffff'): Promise<Luma> {
  const { data, info } = await image
    .flatten({ background: ground })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return lumaOf(data, info, info.channels);
}
