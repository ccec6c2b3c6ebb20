import type { CutFormat } from './formats.ts';

/** What an encoder made at a quality: bytes, and how alike it looks (SSIM, 0 to 1). */
export interface Sample {
  readonly quality: number;
  readonly bytes: number;
  readonly likeness: number;
}

/** Formats that lose something, and so have a quality to be found. */
export type LossyFormat = Exclude<CutFormat, 'png'>;

/**
 * Qualities on the encoders' own scale among which one is found. A drawing is all but even ground, which counts for SSIM as
 * much as its lines: at AVIF 20 a chart still comes to 0.989, and its thin lines are gone; at 30 they are there.
 */
export const QUALITY_RANGE = { least: 30, most: 100 } as const;

/** A file is as alike as is wanted when it is this near to it, in SSIM. */
export const LIKENESS_TOLERANCE = 0.003;

/**
 * The likeness to aim at: as far under what is wanted as the tolerance allows, so that the file is the smallest, less what
 * the search misjudges. On the whole picture that is little; on a mosaic it is 4 % of what is lost, one in twenty 8 %.
 */
export function aimedLikeness(wanted: number, isOnWhole: boolean): number {
  const lost = 1 - wanted;
  const share = isOnWhole ? 0.6 : 0.15;
  return 1 - Math.min(lost * (1 + share / 5), lost + LIKENESS_TOLERANCE * share);
}

const lostOf = (likeness: number) => Math.log(Math.max(1 - likeness, 1e-6));

/** Samples this near to what is aimed at, on the scale of ln(1 - SSIM), are not bettered by a step of quality. */
const NEAR = 0.04;

/** The quality of the plain JPEG that says how fine the grain of a picture is. */
export const REFERENCE_QUALITY = 90;

/**
 * The quality to begin at, by what a plain JPEG at `REFERENCE_QUALITY` loses of the picture. Fitted on 31 cuts of painted
 * marshes of 500 to 1440 px: within 3 steps of what was found on most of them, within 8 on all.
 */
export function firstQuality(format: LossyFormat, referenceLikeness: number, wanted: number): number {
  const grain = Math.max(1 - referenceLikeness, 1e-6) * (USUAL_LOSS / (1 - wanted));
  const { least, rest } = FALLS_SHORT[format];
  return clamped(Math.round(100 - least - rest / grain));
}

/** 1 - SSIM at the likeness for which the steps below were fitted. */
const USUAL_LOSS = 0.015;

/** By how much a quality falls short of 100: at least, and more the smoother the picture. */
const FALLS_SHORT: Readonly<Record<LossyFormat, { readonly least: number; readonly rest: number }>> = {
  avif: { least: 12, rest: 0.11 },
  webp: { least: 7, rest: 0.03 },
  jpeg: { least: 1, rest: 0.17 },
};

/**
 * The quality to try next in the search for the file that is as alike as wanted, or null when the samples say enough.
 * Bisects what is open by regula falsi: what is lost, 1 - SSIM, falls about exponentially with quality.
 */
export function nextQuality(
  samples: readonly Sample[],
  aimed: number,
  first: number,
  tries: number,
): number | null {
  if (samples.length === 0) return clamped(first);
  const aim = lostOf(aimed);
  const sorted = [...samples].sort((one, other) => one.quality - other.quality);
  if (samples.length >= tries || sorted.some(({ likeness }) => Math.abs(lostOf(likeness) - aim) <= NEAR))
    return null;
  const under = sorted.findLast(({ likeness }) => lostOf(likeness) > aim);
  const over = sorted.find(({ likeness }) => lostOf(likeness) <= aim);
  const [least, most] = [under?.quality ?? QUALITY_RANGE.least - 1, over?.quality ?? QUALITY_RANGE.most + 1];
  if (most - least <= 1) return null;
  const guess = under && over ? between(under, over, aim, samples.length) : beyond(sorted, aim);
  return clamped(Math.min(most - 1, Math.max(least + 1, Math.round(guess))));
}

/** After this many samples the middle is taken: from one side alone a false position comes near only slowly. */
const FALSE_POSITIONS = 3;

function between(under: Sample, over: Sample, aim: number, tried: number): number {
  if (tried > FALSE_POSITIONS) return (under.quality + over.quality) / 2;
  const [from, to] = [lostOf(under.likeness), lostOf(over.likeness)];
  const share = from === to ? 0.5 : (from - aim) / (from - to);
  return under.quality + (over.quality - under.quality) * share;
}

/** What a step of quality takes from what is lost, where only one sample is known: as on photographs. */
const FALL = 0.05;

/** Past the samples, all of which are on one side: on by the slope of the last two, or by the usual one. */
function beyond(sorted: readonly Sample[], aim: number): number {
  const isPoor = lostOf(sorted[0]?.likeness ?? 0) > aim;
  const [near, far] = isPoor ? [sorted.at(-1), sorted.at(-2)] : [sorted[0], sorted[1]];
  if (!near) return QUALITY_RANGE.most;
  const slope =
    far && far.quality !== near.quality
      ? (lostOf(near.likeness) - lostOf(far.likeness)) / (near.quality - far.quality)
      : -FALL;
  return near.quality + (aim - lostOf(near.likeness)) / Math.min(slope, -FALL / 4);
}

function clamped(quality: number): number {
  return Math.min(QUALITY_RANGE.most, Math.max(QUALITY_RANGE.least, quality));
}

/** Between two samples so many steps of quality apart the line through them foretells likeness within a step. */
const SURE_STEPS = 8;

/**
 * The quality that is as alike as wanted, if the samples foretell it so surely that it need not be tried: it lies
 * between two that are near each other. Null when they do not.
 */
export function foretoldQuality(samples: readonly Sample[], aimed: number): number | null {
  const aim = lostOf(aimed);
  const sorted = [...samples].sort((one, other) => one.quality - other.quality);
  const under = sorted.findLast(({ likeness }) => lostOf(likeness) > aim);
  const over = sorted.find(({ likeness }) => lostOf(likeness) <= aim);
  if (!under || !over || over.quality - under.quality > SURE_STEPS) return null;
  const quality = Math.round(between(under, over, aim, samples.length));
  return quality <= FINE_FROM ? quality : null;
}

/** Above it each step of an encoder is a leap, of its own length: these are tried. */
const FINE_FROM = 92;

/**
 * The sample that is as alike as wanted: the one nearest to the aim. Where steps of quality are so coarse that the nearest
 * is less alike than the tolerance allows, as in JPEG of fine grain, the lightest of those over it.
 */
export function asAlike<S extends Sample>(samples: readonly S[], wanted: number): S | undefined {
  const aim = lostOf(aimedLikeness(wanted, true));
  const enough = samples.filter(({ likeness }) => likeness >= wanted - LIKENESS_TOLERANCE);
  const from = enough.length > 0 ? enough : samples;
  return from.reduce<S | undefined>((best, one) => {
    if (!best) return one;
    return Math.abs(lostOf(one.likeness) - aim) < Math.abs(lostOf(best.likeness) - aim) ? one : best;
  }, undefined);
}
