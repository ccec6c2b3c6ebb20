import type { CutFormat } from './formats.ts';
import type { Prep } from './recipe.ts';

/**
 * How good a cut is made: 1 to 100 is the encoder's own scale; from `LEAST_LIKENESS` to 999 the likeness that is wanted, in
 * thousandths of SSIM, and the encoder's quality is found on the cut's own pixels. One number, since it stands in the keys
 * and addresses of cuts.
 */
export type CutQuality = number;

export const LEAST_LIKENESS = 900;

/** The likeness (SSIM, 0 to 1) that a cut's quality wants, or null where it is the encoder's own. */
export function wantedLikeness(quality: CutQuality): number | null {
  return quality >= LEAST_LIKENESS ? quality / 1000 : null;
}

/** How good a format of a piece is made: at its own quality where a person chose one, else as alike as the House rules want. */
export function qualityFor(
  house: { readonly likeness: number },
  { quality }: Pick<Prep, 'quality'>,
  format: CutFormat,
): CutQuality {
  return format === 'png' ? house.likeness : (quality[format] ?? house.likeness);
}
