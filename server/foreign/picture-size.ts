import { imageSize } from 'image-size';

/** The size in px that a picture says at its head, with its turn in it; null where it says none. Of the first bytes alone. */
export function pictureSize(bytes: Uint8Array): { readonly width: number; readonly height: number } | null {
  try {
    const { width, height, orientation = 1 } = imageSize(bytes);
    return orientation >= 5 ? { width: height, height: width } : { width, height };
  } catch {
    return null;
  }
}
