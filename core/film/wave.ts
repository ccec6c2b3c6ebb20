/** Loudness in 64 steps, a letter for each: what fits in a text without being escaped (RFC 4648, 5). */
const STEPS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_';
/** Quieter is drawn as nothing, in dB under full loudness. */
const FLOOR = -60;

/** How loud something is, as a letter; `level` from 0 to 1 of full loudness. */
export function waveLetter(level: number): string {
  const decibels = level > 0 ? 20 * Math.log10(level) : FLOOR;
  const part = Math.min(1, Math.max(0, 1 - decibels / FLOOR));
  return STEPS.charAt(Math.round(part * (STEPS.length - 1)));
}

/** How high each moment is drawn, from 0 to 1; letters that are none are silence. */
export const readWave = (letters: string): readonly number[] =>
  [...letters].map((letter) => Math.max(0, STEPS.indexOf(letter)) / (STEPS.length - 1));
