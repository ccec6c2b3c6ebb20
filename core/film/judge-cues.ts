import type { Cue } from './cue.ts';
import { type CaptionRules, captionRulesOf, USUAL_FILM_RULES } from './rules.ts';

export const USUAL_CAPTIONS: CaptionRules = captionRulesOf(USUAL_FILM_RULES);

/** What is wrong with one caption, with what mends it. */
export type CueFault =
  | {
      readonly code: 'too-fast';
      readonly perSecond: number;
      readonly until: number | null;
      readonly canPart: boolean;
    }
  | { readonly code: 'too-many-lines'; readonly lines: number }
  | { readonly code: 'line-too-long'; readonly letters: number }
  | { readonly code: 'too-short' | 'too-long'; readonly millis: number }
  | { readonly code: 'overlaps' | 'says-nothing' | 'past-the-end' }
  | { readonly code: 'gap-too-small'; readonly millis: number };

/** Letters that are read, without the line breaks. */
const lettersOf = ({ text }: Cue): number => [...text.replaceAll('\n', ' ')].length;

/** How fast a caption is to be read, in letters a second. */
export const paceOf = (cue: Cue): number => (lettersOf(cue) * 1000) / Math.max(1, cue.to - cue.from);

/** What is wrong with the caption at a place among all of them, in order of time. */
export function judgeCue(
  cues: readonly Cue[],
  at: number,
  rules: CaptionRules = USUAL_CAPTIONS,
  /** Where the film ends, in milliseconds. */
  end = Number.POSITIVE_INFINITY,
): readonly CueFault[] {
  const cue = cues[at];
  if (!cue) return [];
  if (cue.text.trim() === '') return [{ code: 'says-nothing' }];
  if (cue.from >= end) return [{ code: 'past-the-end' }];
  const next = cues[at + 1];
  const seen = cue.to - cue.from;
  const lines = cue.text.split('\n');
  const longest = Math.max(...lines.map((line) => [...line].length));
  const pace = paceOf(cue);
  const until = untilFor(cue, next, rules);
  return [
    ...(pace > rules.perSecond
      ? [{ code: 'too-fast', perSecond: Math.round(pace), until, canPart: partOf(cue) !== null } as const]
      : []),
    ...(lines.length > rules.lines ? [{ code: 'too-many-lines', lines: lines.length } as const] : []),
    ...(longest > rules.lineLetters ? [{ code: 'line-too-long', letters: longest } as const] : []),
    ...(seen < rules.least ? [{ code: 'too-short', millis: seen } as const] : []),
    ...(seen > rules.most ? [{ code: 'too-long', millis: seen } as const] : []),
    ...(next && next.from < cue.to ? [{ code: 'overlaps' } as const] : []),
    ...(next && next.from >= cue.to && next.from - cue.to > 0 && next.from - cue.to < rules.gap
      ? [{ code: 'gap-too-small', millis: next.from - cue.to } as const]
      : []),
  ];
}

/** Until when it would have to be seen; null where the next one begins before. */
function untilFor(cue: Cue, next: Cue | undefined, rules: CaptionRules): number | null {
  const until = cue.from + Math.ceil((lettersOf(cue) * 1000) / rules.perSecond);
  const latest = next ? next.from - rules.gap : Number.POSITIVE_INFINITY;
  return until <= latest && until - cue.from <= rules.most ? until : null;
}

/** A caption parted at the space that is nearest to its middle, its time by how much each half says; null for one word. */
export function partOf(cue: Cue): readonly [Cue, Cue] | null {
  const words = cue.text.replaceAll('\n', ' ');
  const middle = words.length / 2;
  let best = -1;
  for (let at = words.indexOf(' '); at >= 0; at = words.indexOf(' ', at + 1))
    if (best < 0 || Math.abs(at - middle) < Math.abs(best - middle)) best = at;
  if (best <= 0 || best >= words.length - 1 || cue.to - cue.from < 2) return null;
  const [first, second] = [words.slice(0, best), words.slice(best + 1)];
  const share = Math.round(((cue.to - cue.from) * first.length) / (first.length + second.length));
  // However short it is, neither part is nothing.
  const turn = cue.from + Math.min(cue.to - cue.from - 1, Math.max(1, share));
  return [
    { from: cue.from, to: turn, text: balanced(first) },
    { from: turn, to: cue.to, text: balanced(second) },
  ];
}

/** The same words in as few lines as they fit in, of lengths as alike as words allow. */
export function balanced(
  text: string,
  { lineLetters }: Pick<CaptionRules, 'lineLetters'> = USUAL_CAPTIONS,
): string {
  const words = text.split(/\s+/).filter(Boolean);
  const whole = words.join(' ');
  const count = Math.ceil(whole.length / lineLetters);
  if (count <= 1) return whole;
  const aim = whole.length / count;
  const lines: string[] = [''];
  for (const word of words) {
    const line = lines.at(-1) ?? '';
    const longer = line === '' ? word : `${line} ${word}`;
    const isFull = line !== '' && (longer.length > lineLetters || longer.length - aim > aim - line.length);
    if (isFull && lines.length < count + 1) lines.push(word);
    else lines[lines.length - 1] = longer;
  }
  return lines.join('\n');
}

/** All that is safe to mend without hearing the film: lines are set anew, time is given where it is free, and what overlaps is parted. */
export function mendCues(cues: readonly Cue[], rules: CaptionRules = USUAL_CAPTIONS): readonly Cue[] {
  const inOrder = [...cues].sort((one, other) => one.from - other.from);
  return inOrder.map((cue, at) => {
    const next = inOrder[at + 1];
    const lines = cue.text.split('\n');
    const isWide = lines.length > rules.lines || lines.some((line) => [...line].length > rules.lineLetters);
    const text = isWide ? balanced(cue.text, rules) : cue.text;
    const latest = next ? Math.max(cue.from + 1, next.from - rules.gap) : Number.POSITIVE_INFINITY;
    const needed = cue.from + Math.max(rules.least, Math.ceil((lettersOf(cue) * 1000) / rules.perSecond));
    const isTight = next !== undefined && next.from - cue.to < rules.gap && next.from !== cue.to;
    const to = Math.max(cue.to, Math.min(needed, latest));
    return { from: cue.from, to: isTight ? Math.min(to, latest) : to, text };
  });
}

/** All captions later or earlier, and drawn out: `factor` 1.04 for a film that runs slower. None begins before the film. */
export const shifted = (cues: readonly Cue[], millis: number, factor = 1): readonly Cue[] =>
  cues.map(({ from, to, text }) => {
    const begins = Math.max(0, Math.round(from * factor + millis));
    return { from: begins, to: Math.max(begins + 1, Math.round(to * factor + millis)), text };
  });

/** What a caption’s fault is, as a sentence. */
export function sayCueFault(fault: CueFault): string {
  switch (fault.code) {
    case 'too-fast':
      return `${fault.perSecond} letters a second: nobody reads that.`;
    case 'too-many-lines':
      return `${fault.lines} lines cover the picture.`;
    case 'line-too-long':
      return `A line of ${fault.letters} letters does not fit on a phone.`;
    case 'too-short':
      return `It is seen for ${(fault.millis / 1000).toFixed(1)} s: too short to be noticed.`;
    case 'too-long':
      return `It stands for ${(fault.millis / 1000).toFixed(1)} s: it is read twice.`;
    case 'past-the-end':
      return 'The film has ended by then.';
    case 'says-nothing':
      return 'It says nothing.';
    case 'overlaps':
      return 'The next one begins before it ends.';
    case 'gap-too-small':
      return `Only ${fault.millis} ms to the next one: it flickers.`;
  }
}
