import type { Cue } from './cue.ts';
import { balanced, type CueFault, partOf } from './judge-cues.ts';
import type { CaptionRules } from './rules.ts';

/** Captions after a change, with the place of the one that has the attention; none where there is no caption left. */
export interface Edited {
  readonly cues: readonly Cue[];
  readonly at: number | null;
}

/** No caption is shorter: an edge stops before the other one. In milliseconds. */
const LEAST_MILLIS = 100;
/** One that is begun and not ended yet lasts so long. */
const BEGUN_MILLIS = 2000;

/** All captions in the order of time, and where the changed one came to. */
function inOrder(cues: readonly Cue[], changed: Cue): Edited {
  const sorted = [...cues].sort((one, other) => one.from - other.from);
  return { cues: sorted, at: sorted.indexOf(changed) };
}

const replaced = (cues: readonly Cue[], at: number, by: readonly Cue[]): readonly Cue[] => [
  ...cues.slice(0, at),
  ...by,
  ...cues.slice(at + 1),
];

/** A caption that says something else. */
export function withText(cues: readonly Cue[], at: number, text: string): Edited {
  const cue = cues[at];
  return cue ? { cues: replaced(cues, at, [{ ...cue, text }]), at } : { cues, at: null };
}

/** A caption that begins, or ends, at another moment; never past its other edge, and never before the film. */
export function withEdge(cues: readonly Cue[], at: number, edge: 'from' | 'to', moment: number): Edited {
  const cue = cues[at];
  if (!cue) return { cues, at: null };
  const whole = Math.max(0, Math.round(moment));
  const changed =
    edge === 'from'
      ? { ...cue, from: Math.max(0, Math.min(whole, cue.to - LEAST_MILLIS)) }
      : { ...cue, to: Math.max(whole, cue.from + LEAST_MILLIS) };
  return inOrder(replaced(cues, at, [changed]), changed);
}

/** A caption that is seen at another time for as long as before. */
export function movedTo(cues: readonly Cue[], at: number, from: number): Edited {
  const cue = cues[at];
  if (!cue) return { cues, at: null };
  const begins = Math.max(0, Math.round(from));
  const changed = { ...cue, from: begins, to: begins + cue.to - cue.from };
  return inOrder(replaced(cues, at, [changed]), changed);
}

/** A new caption that begins at a moment and says nothing yet; it ends where the next one begins, if that is soon. */
export function begunAt(cues: readonly Cue[], moment: number, end: number): Edited {
  const from = Math.min(Math.max(0, Math.round(moment)), Math.max(0, Math.round(end) - LEAST_MILLIS));
  const next = cues.find((cue) => cue.from > from + LEAST_MILLIS);
  const to = Math.max(
    from + LEAST_MILLIS,
    Math.min(from + BEGUN_MILLIS, next?.from ?? Number.POSITIVE_INFINITY, end),
  );
  const made = { from, to, text: '' };
  return inOrder([...cues, made], made);
}

export function without(cues: readonly Cue[], at: number): Edited {
  const left = replaced(cues, at, []);
  return { cues: left, at: left.length === 0 ? null : Math.min(at, left.length - 1) };
}

/** A caption parted in two; the same where it is one word. */
export function parted(cues: readonly Cue[], at: number): Edited {
  const parts = cues[at] && partOf(cues[at]);
  return parts ? inOrder(replaced(cues, at, parts), parts[0]) : { cues, at };
}

/** A caption with the one behind it, as one. */
export function joinedWithNext(cues: readonly Cue[], at: number, rules: CaptionRules): Edited {
  const [cue, next] = [cues[at], cues[at + 1]];
  if (!cue || !next) return { cues, at };
  const text = balanced(`${cue.text} ${next.text}`.trim(), rules);
  const joined = { from: cue.from, to: Math.max(cue.to, next.to), text };
  return { cues: [...cues.slice(0, at), joined, ...cues.slice(at + 2)], at };
}

/** What mends a fault of a caption by itself; null for one that a person has to mend. */
export function remedyOf(
  cues: readonly Cue[],
  at: number,
  fault: CueFault,
  rules: CaptionRules,
): (() => Edited) | null {
  const [cue, next] = [cues[at], cues[at + 1]];
  if (!cue) return null;
  switch (fault.code) {
    case 'too-fast':
      return fault.until === null ? null : () => withEdge(cues, at, 'to', fault.until ?? cue.to);
    case 'too-many-lines':
    case 'line-too-long': {
      const text = balanced(cue.text, rules);
      const isMended = text !== cue.text && text.split('\n').length <= rules.lines;
      return isMended ? () => withText(cues, at, text) : null;
    }
    case 'too-short': {
      const to = Math.min(cue.from + rules.least, next ? next.from - rules.gap : Number.POSITIVE_INFINITY);
      return to - cue.from >= rules.least ? () => withEdge(cues, at, 'to', to) : null;
    }
    case 'too-long':
      return () => withEdge(cues, at, 'to', cue.from + rules.most);
    case 'overlaps':
    case 'gap-too-small':
      return next && next.from - rules.gap > cue.from + LEAST_MILLIS
        ? () => withEdge(cues, at, 'to', next.from - rules.gap)
        : null;
    case 'past-the-end':
    case 'says-nothing':
      return () => without(cues, at);
  }
}

/** What the remedy of a fault is called. `time` says a moment as the list does. */
export function sayRemedyOf(fault: CueFault, time: (millis: number) => string): string {
  switch (fault.code) {
    case 'too-fast':
      return `Give it until ${time(fault.until ?? 0)}`;
    case 'too-many-lines':
    case 'line-too-long':
      return 'Set its lines anew';
    case 'too-short':
      return 'Give it a second';
    case 'too-long':
      return 'End it earlier';
    case 'overlaps':
    case 'gap-too-small':
      return 'End it before the next';
    case 'past-the-end':
    case 'says-nothing':
      return 'Remove it';
  }
}

/** A transcript made of captions: what is said as paragraphs, a new one wherever nothing is said for a while. */
export function transcriptOf(cues: readonly Cue[]): readonly Cue[] {
  const paragraphs: Cue[] = [];
  for (const { from, to, text } of cues) {
    const said = text.replaceAll('\n', ' ').trim();
    const last = paragraphs.at(-1);
    const isNew = !last || from - last.to > PAUSE_MILLIS || last.text.length > MOST_PARAGRAPH;
    if (isNew) paragraphs.push({ from, to, text: said });
    else
      paragraphs[paragraphs.length - 1] = {
        from: last.from,
        to: Math.max(last.to, to),
        text: `${last.text} ${said}`,
      };
  }
  return paragraphs.filter(({ text }) => text !== '');
}

const PAUSE_MILLIS = 2500;
const MOST_PARAGRAPH = 600;

/** A transcript as text that is written in, its paragraphs parted by empty lines. */
export const transcriptText = (paragraphs: readonly Cue[]): string =>
  paragraphs.map(({ text }) => text).join('\n\n');

/** Text that was written in as a transcript: paragraphs keep the times of those that were there. */
export function readTranscript(text: string, before: readonly Cue[]): readonly Cue[] {
  const last = before.at(-1)?.to ?? 1;
  return text
    .split(/\n\s*\n/)
    .map((paragraph) => paragraph.replace(/\s*\n\s*/g, ' ').trim())
    .filter(Boolean)
    .map((said, at) => ({
      from: before[at]?.from ?? last,
      to: before[at]?.to ?? last + 1,
      text: said.slice(0, MOST_SAID),
    }));
}

const MOST_SAID = 8000;
