import * as v from 'valibot';

const millis = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(366 * 86_400_000));

/** One caption: what is shown from when to when, in milliseconds from the beginning. Its lines are parted by line breaks. */
const CueSchema = v.strictObject({
  from: millis,
  to: millis,
  text: v.pipe(v.string(), v.maxLength(8000)),
});
export type Cue = v.InferOutput<typeof CueSchema>;

/** What lies along a film: what is said, where its parts begin, and all that is said as paragraphs to be read. */
export const TRACK_KINDS = ['captions', 'chapters', 'transcript'] as const;
export type TrackKind = (typeof TRACK_KINDS)[number];

export const MOST_CUES = 20_000;
export const CuesSchema = v.pipe(v.array(CueSchema), v.maxLength(MOST_CUES));

/** A time as WebVTT writes it (W3C WebVTT, 4.1): "00:01:12.040". */
export function writeTime(at: number): string {
  const two = (value: number) => String(value).padStart(2, '0');
  const seconds = Math.floor(at / 1000);
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}.${String(at % 1000).padStart(3, '0')}`;
}

const TIME = /^(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})$/;

/** A time as WebVTT or SRT has it, in milliseconds; null for what is none. */
export function readTime(text: string): number | null {
  const found = TIME.exec(text.trim());
  if (!found) return null;
  const [, hours = '0', minutes = '', seconds = '', part = ''] = found;
  if (Number(minutes) > 59 || Number(seconds) > 59) return null;
  return (Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds)) * 1000 + Number(part.padEnd(3, '0'));
}

/** Captions as WebVTT (W3C). Plain text alone is written; signs that would be markup are escaped. */
export function writeVtt(cues: readonly Cue[]): string {
  const blocks = cues.map(
    ({ from, to, text }) => `${writeTime(from)} --> ${writeTime(to)}\n${escaped(text)}\n`,
  );
  return `${['WEBVTT\n', ...blocks].join('\n')}`;
}

/** A blank line would end the caption. */
const escaped = (text: string): string =>
  text
    .split('\n')
    .filter((line) => line.trim() !== '')
    .join('\n')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;');
