import type { CutFormat } from './formats.ts';

/** What an encoder made at a quality: bytes, and how alike it looks (SSIM, 0 to 1). */
export interface Sample {
  readonly quality: number;
  readonly bytes: number;
  readonly likeness: number;
  /** Where it is not a quality of the encoder, but a step between two of them. */
  readonly between?: BetweenStep;
}

/**
 * Steps between two qualities of JPEG, where its own are leaps: the upper with a table that is coarser for fine grain, or
 * the lower without the encoder's trellis. Of a grained marsh 1080 px wide 96 comes to 0.9805 and 97 to 0.9889; between
 * them lie 0.9857 and 0.9829, at bytes between theirs.
 */
export type BetweenStep = 'coarser-table' | 'no-trellis';

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

/** How qualities of an encoder are spaced, so that what is lost, on the scale of ln(1 - SSIM), falls about evenly. */
interface Spacing {
  readonly at: (quality: number) => number;
  readonly qualityAt: (place: number) => number;
  /** By how much what is lost falls for 1 of it, where only one sample is known: as on photographs. */
  readonly fall: number;
}

const EVEN: Spacing = { at: (quality) => quality, qualityAt: (place) => place, fall: 0.05 };

/** Qualities of JPEG are shares of its table: 200 - 2q percent of it over 50, 5000 / q under (libjpeg, `jpeg_quality_scaling`). */
const BY_TABLE: Spacing = {
  at: (quality) => -Math.log(quality < 50 ? 5000 / quality : Math.max(200 - 2 * quality, 1)),
  qualityAt: (place) => {
    const percent = Math.exp(-place);
    return percent > 100 ? 5000 / percent : (200 - percent) / 2;
  },
  fall: 1.2,
};

const spacingOf = (format: LossyFormat): Spacing => (format === 'jpeg' ? BY_TABLE : EVEN);

/**
 * The quality to try next in the search for the file that is as alike as wanted, or null when the samples say enough.
 * Bisects what is open by regula falsi: what is lost, 1 - SSIM, falls about exponentially with quality.
 */
export function nextQuality(
  format: LossyFormat,
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
  const spacing = spacingOf(format);
  const guess =
    under && over ? between(spacing, under, over, aim, samples.length) : beyond(spacing, sorted, aim);
  return clamped(Math.min(most - 1, Math.max(least + 1, Math.round(guess))));
}

/** After this many samples the middle is taken: from one side alone a false position comes near only slowly. */
const FALSE_POSITIONS = 3;

function between(spacing: Spacing, under: Sample, over: Sample, aim: number, tried: number): number {
  if (tried > FALSE_POSITIONS) return (under.quality + over.quality) / 2;
  const [from, to] = [lostOf(under.likeness), lostOf(over.likeness)];
  const share = from === to ? 0.5 : (from - aim) / (from - to);
  const [least, most] = [spacing.at(under.quality), spacing.at(over.quality)];
  return spacing.qualityAt(least + (most - least) * share);
}

/** Past the samples, all of which are on one side: on by the slope of the last two, or by the usual one. */
function beyond({ at, qualityAt, fall }: Spacing, sorted: readonly Sample[], aim: number): number {
  const isPoor = lostOf(sorted[0]?.likeness ?? 0) > aim;
  const [near, far] = isPoor ? [sorted.at(-1), sorted.at(-2)] : [sorted[0], sorted[1]];
  if (!near) return QUALITY_RANGE.most;
  const slope =
    far && far.quality !== near.quality
      ? (lostOf(near.likeness) - lostOf(far.likeness)) / (at(near.quality) - at(far.quality))
      : -fall;
  return qualityAt(at(near.quality) + (aim - lostOf(near.likeness)) / Math.min(slope, -fall / 4));
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
export function foretoldQuality(
  format: LossyFormat,
  samples: readonly Sample[],
  aimed: number,
): number | null {
  const aim = lostOf(aimed);
  const sorted = [...samples].sort((one, other) => one.quality - other.quality);
  const under = sorted.findLast(({ likeness }) => lostOf(likeness) > aim);
  const over = sorted.find(({ likeness }) => lostOf(likeness) <= aim);
  if (!under || !over || over.quality - under.quality > SURE_STEPS) return null;
  const quality = Math.round(between(spacingOf(format), under, over, aim, samples.length));
  return quality <= FINE_FROM ? quality : null;
}

/** Above it each step of an encoder is a leap, of its own length: these are tried. */
const FINE_FROM = 92;

/** A file further over what is wanted than this is heavier than it need be; what a search misjudges has room under the tolerance. */
const FAR_OVER = 0.0018;

/**
 * What to try between two qualities of JPEG that are next to each other, the lower less alike than wanted and the upper
 * far more: each until one is near enough. None where a quality is near enough itself, and for other formats.
 */
export function betweenSteps(
  format: LossyFormat,
  samples: readonly Sample[],
  wanted: number,
): readonly { readonly quality: number; readonly between: BetweenStep }[] {
  const best = asAlike(samples, wanted);
  if (format !== 'jpeg' || !best || isNear(best, wanted)) return [];
  const sorted = samples.filter((one) => !one.between).sort((one, other) => one.quality - other.quality);
  const under = sorted.findLast(({ likeness }) => likeness < wanted);
  const over = sorted.find(({ likeness }) => likeness > wanted);
  if (!under || !over || over.quality - under.quality > 1) return [];
  const steps = [
    { quality: over.quality, between: 'coarser-table' },
    { quality: under.quality, between: 'no-trellis' },
  ] as const;
  return steps.filter(
    (step) => !samples.some((one) => one.quality === step.quality && one.between === step.between),
  );
}

function isNear({ likeness }: Sample, wanted: number): boolean {
  return likeness >= wanted - LIKENESS_TOLERANCE && likeness <= wanted + FAR_OVER;
}

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
