import type { CutFormat } from './formats.ts';
import type { Prep } from './recipe.ts';

/** PNG keeps every pixel; its quality only stands where all formats have one. */
const PNG_QUALITY = 100;

/** The encoder's quality for a format of a piece: its own, else the House rules'. */
export function qualityFor(
  house: { readonly quality: Readonly<Record<Exclude<CutFormat, 'png'>, number>> },
  { quality }: Pick<Prep, 'quality'>,
  format: CutFormat,
): number {
  return format === 'png' ? PNG_QUALITY : (quality[format] ?? house.quality[format]);
}
