import * as v from 'valibot';

const millis = v.pipe(v.number(), v.integer(), v.minValue(0));
const MOST_SILENCES = 2000;

/** What was heard in a film when it was listened to from its beginning to its end. */
export const HeardSchema = v.object({
  /** Integrated loudness in LUFS (ITU-R BS.1770-4); null for what is nowhere loud enough to be measured. */
  lufs: v.nullable(v.number()),
  /** The highest true peak in dBTP. */
  peak: v.nullable(v.number()),
  /** Where nothing is heard, in milliseconds. */
  silences: v.pipe(v.array(v.object({ from: millis, to: millis })), v.maxLength(MOST_SILENCES), v.readonly()),
});
export type Heard = v.InferOutput<typeof HeardSchema>;

/** Quieter than this for so long is silence: a room without anybody in it is at −50 dB and under. */
export const SILENCE = { decibels: -45, seconds: 0.6 };

const LOUDNESS = /^\s*I:\s+(-?[\d.]+) LUFS/gm;
const PEAK = /^\s*Peak:\s+(-?[\d.]+|-inf) dBFS/gm;
const BEGINS = /silence_start: (-?[\d.]+)/g;
const ENDS = /silence_end: (-?[\d.]+)/g;
/** The least that the measure knows: nothing passed its gate. */
const UNHEARD_LUFS = -70;

/** What ffmpeg's filters `ebur128` (with true peaks) and `silencedetect` wrote of a sound that is so long. */
export function readHeard(said: string, seconds: number): Heard {
  const lufs = lastOf(said, LOUDNESS);
  const peak = lastOf(said, PEAK);
  const end = Math.round(seconds * 1000);
  const ends = allOf(said, ENDS);
  const silences = allOf(said, BEGINS)
    .slice(0, MOST_SILENCES)
    .map((from, at) => ({ from: clamped(from, end), to: clamped(ends[at] ?? seconds, end) }))
    .filter(({ from, to }) => to > from);
  return { lufs: lufs === null || lufs <= UNHEARD_LUFS ? null : lufs, peak, silences };
}

const allOf = (said: string, pattern: RegExp): readonly number[] =>
  [...said.matchAll(pattern)].map(([, value]) => Number(value));

function lastOf(said: string, pattern: RegExp): number | null {
  const value = allOf(said, pattern).at(-1);
  return value === undefined || !Number.isFinite(value) ? null : value;
}

const clamped = (seconds: number, end: number): number =>
  Math.min(end, Math.max(0, Math.round(seconds * 1000)));

/** So far speech may begin before its sound is loud, or end after it, in milliseconds. */
const LENIENT_MILLIS = 300;
/** What is heard and not said stands in brackets, or is sung. */
const IS_SOUND = /^\s*[[(♪]/u;

/** The captions that say something where nothing is heard, by their places: they are out of step, or of another film. */
export function cuesInSilence(
  cues: readonly { readonly from: number; readonly to: number; readonly text: string }[],
  silences: Heard['silences'],
): readonly number[] {
  return cues.flatMap(({ from, to, text }, at) => {
    if (IS_SOUND.test(text)) return [];
    const isSilent = silences.some(
      (silence) => silence.from <= from + LENIENT_MILLIS && silence.to >= to - LENIENT_MILLIS,
    );
    return isSilent ? [at] : [];
  });
}

/** How many values a second of sound is drawn with. */
const WAVE_PER_SECOND = 20;
/** Of a very long sound fewer values a second are kept. */
const MOST_WAVE = 40_000;

/** How many values a second a sound of a length is drawn with. */
export const wavePerSecond = (seconds: number): number =>
  Math.min(WAVE_PER_SECOND, Math.max(0.1, MOST_WAVE / Math.max(1, seconds)));
