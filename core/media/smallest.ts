/** What an encoder made at a quality: bytes, and how alike it looks (SSIM, 0 to 1). */
export interface Sample {
  readonly quality: number;
  readonly bytes: number;
  readonly likeness: number;
}

/** Qualities between which the smallest file is looked for; outside them no photograph looks right, or gets better. */
export const QUALITY_RANGE = { least: 20, most: 95 } as const;

/**
 * The quality to try next in the search for the smallest file at or over a wanted likeness, or null when the samples say
 * enough. Begins at `first`, then bisects what is open by regula falsi: what is lost, 1 - SSIM, falls about
 * exponentially with quality. `tries` is how many samples are made at most.
 */
export function nextQuality(
  samples: readonly Sample[],
  wanted: number,
  first: number,
  tries: number,
): number | null {
  if (samples.length === 0) return clamped(first);
  if (samples.length >= tries) return null;
  const sorted = [...samples].sort((one, other) => one.quality - other.quality);
  const under = sorted.findLast(({ likeness }) => likeness < wanted);
  const over = sorted.find(({ likeness }) => likeness >= wanted);
  const [least, most] = [under?.quality ?? QUALITY_RANGE.least - 1, over?.quality ?? QUALITY_RANGE.most + 1];
  if (most - least <= PRECISION) return null;
  const guess = under && over ? between(under, over, wanted) : beyond(sorted, wanted);
  return clamped(Math.min(most - 1, Math.max(least + 1, Math.round(guess))));
}

/** Steps of quality this near to each other look and weigh the same. */
const PRECISION = 3;

/** Aimed at a little over what is wanted, so that the guess is more often good than just under. */
const AIM_SHARE = 0.92;

/** What is lost, on a scale on which it falls evenly with quality. */
const lost = (likeness: number) => Math.log(Math.max(1 - likeness, 1e-6));
const aim = (wanted: number) => lost(1 - (1 - wanted) * AIM_SHARE);

function between(under: Sample, over: Sample, wanted: number): number {
  const [from, to] = [lost(under.likeness), lost(over.likeness)];
  const share = from === to ? 0.5 : (from - aim(wanted)) / (from - to);
  return under.quality + (over.quality - under.quality) * share;
}

/** What a step of quality takes from what is lost, where only one sample is known: as on photographs. */
const FALL = 0.055;

/** Past the samples, all of which are on one side: on by the slope of the last two, or by the usual one. */
function beyond(sorted: readonly Sample[], wanted: number): number {
  const isPoor = (sorted[0]?.likeness ?? 0) < wanted;
  const [near, far] = isPoor ? [sorted.at(-1), sorted.at(-2)] : [sorted[0], sorted[1]];
  if (!near) return QUALITY_RANGE.most;
  // It falls faster the higher one goes, so half again as steep is nearer than the slope that was measured.
  const slope =
    far && far.quality !== near.quality
      ? ((lost(near.likeness) - lost(far.likeness)) / (near.quality - far.quality)) * STEEPER
      : -FALL;
  return near.quality + (aim(wanted) - lost(near.likeness)) / Math.min(slope, -FALL / 4);
}

const STEEPER = 1.5;

function clamped(quality: number): number {
  return Math.min(QUALITY_RANGE.most, Math.max(QUALITY_RANGE.least, quality));
}

/** The lightest sample at or over the wanted likeness; the most alike one where none is. */
export function smallestAlike(samples: readonly Sample[], wanted: number): Sample | undefined {
  const good = samples.filter(({ likeness }) => likeness >= wanted);
  if (good.length > 0) return good.reduce((best, one) => (one.bytes < best.bytes ? one : best));
  return samples.reduce<Sample | undefined>(
    (best, one) => (best === undefined || one.likeness > best.likeness ? one : best),
    undefined,
  );
}
