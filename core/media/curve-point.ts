import type { Sample } from './alike.ts';

/** What a quality is thought to come to, between the samples that were measured; measured ones are themselves. */
export function sampleAt(samples: readonly Sample[], quality: number): Sample | undefined {
  const sorted = [...samples].sort((one, other) => one.quality - other.quality);
  const under = sorted.findLast((sample) => sample.quality <= quality) ?? sorted[0];
  const over = sorted.find((sample) => sample.quality >= quality) ?? sorted.at(-1);
  if (!under || !over) return undefined;
  const share =
    over.quality === under.quality ? 0 : (quality - under.quality) / (over.quality - under.quality);
  const within = Math.min(1, Math.max(0, share));
  const between = (from: number, to: number) => from + (to - from) * within;
  return {
    quality,
    bytes: Math.round(between(under.bytes, over.bytes)),
    likeness: between(under.likeness, over.likeness),
  };
}

/** The whole quality whose file is thought to weigh nearest to `bytes`, within what was measured. */
export function qualityAtBytes(samples: readonly Sample[], bytes: number): number | undefined {
  const sorted = [...samples].sort((one, other) => one.bytes - other.bytes);
  const [first] = sorted;
  const last = sorted.at(-1);
  if (!first || !last) return undefined;
  const over = sorted.find((sample) => sample.bytes >= bytes) ?? last;
  const under = sorted.findLast((sample) => sample.bytes <= bytes) ?? first;
  if (over.bytes === under.bytes) return under.quality;
  const share = (bytes - under.bytes) / (over.bytes - under.bytes);
  return Math.round(under.quality + (over.quality - under.quality) * share);
}
