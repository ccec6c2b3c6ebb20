import type { Size } from './dimensions.ts';

/** A square of four px in which two are this far apart in colour (of 255, in Cb or Cr of ITU-R BT.601) has a fine one. */
const FAR = 40;

/** Above this share of squares it is lines and letters in colour that are lost, not the grain of a photograph. */
const SHARE = 0.004;

/**
 * Whether a picture has colours so fine that they are lost where an encoder keeps one colour for four px (4:2:0): red
 * letters, thin lines of a chart. Pixels of 1 to 4 channels.
 */
export function hasFineColour(pixels: Uint8Array, { width, height }: Size, channels: number): boolean {
  if (channels < 3) return false;
  const row = width * channels;
  let fine = 0;
  for (let y = 0; y + 1 < height; y += 2)
    for (let x = 0; x + 1 < width; x += 2) {
      const at = y * row + x * channels;
      const [next, below] = [at + channels, at + row];
      if (
        isFar(pixels, at, next) ||
        isFar(pixels, at, below) ||
        isFar(pixels, at, below + channels) ||
        isFar(pixels, next, below)
      )
        fine += 1;
    }
  return fine > (width >> 1) * (height >> 1) * SHARE;
}

/** Whether two px differ in colour, however bright they are: by Cb and Cr in thousandths. */
function isFar(pixels: Uint8Array, one: number, other: number): boolean {
  const red = (pixels[one] ?? 0) - (pixels[other] ?? 0);
  const green = (pixels[one + 1] ?? 0) - (pixels[other + 1] ?? 0);
  const blue = (pixels[one + 2] ?? 0) - (pixels[other + 2] ?? 0);
  return (
    Math.abs(500 * blue - 169 * red - 331 * green) > FAR * 1000 ||
    Math.abs(500 * red - 419 * green - 81 * blue) > FAR * 1000
  );
}
