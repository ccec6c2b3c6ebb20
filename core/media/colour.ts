import * as v from 'valibot';

/** A colour as HTML writes it. */
export const ColourSchema = v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/, 'A colour is written as #172126.'));

/** Red, green and blue, each 0 to 1 in sRGB. */
export type Rgb = readonly [red: number, green: number, blue: number];

/** The channels of a colour that `ColourSchema` takes. */
export function rgbOf(colour: string): Rgb {
  const channel = (at: number) => Number.parseInt(colour.slice(at, at + 2), 16) / 255;
  return [channel(1), channel(3), channel(5)];
}

/** Relative luminance, 0 for black to 1 for white (WCAG 2.2, "relative luminance"). */
export function luminance([red, green, blue]: Rgb): number {
  return 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue);
}

function linear(channel: number): number {
  return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
}

/** Contrast of two luminances, 1 for none to 21 (WCAG 2.2, "contrast ratio"). */
export function contrastRatio(one: number, other: number): number {
  return (Math.max(one, other) + 0.05) / (Math.min(one, other) + 0.05);
}
