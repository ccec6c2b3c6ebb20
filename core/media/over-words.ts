import * as v from 'valibot';
import { ColourSchema } from './colour.ts';
import type { Size } from './dimensions.ts';
import { advanceOf } from './letters.ts';

/** Where words stand in a picture: the nine places, row by row. */
export const OVER_PLACES = [
  'top left',
  'top',
  'top right',
  'left',
  'middle',
  'right',
  'bottom left',
  'bottom',
  'bottom right',
] as const;
export type OverPlace = (typeof OVER_PLACES)[number];

/** The size of words, in thousandths of the picture's width. */
export const LEAST_SIZE = 20;
export const MOST_SIZE = 200;

/** So many characters a recipe's key has room for, once the words are spelled in it. */
const SPELLED_LIMIT = 90;

/** What the face has: Latin letters with their accents, figures and punctuation. */
const IN_THE_FACE =
  /^[\n\u0020-\u007e\u00a0-\u017f\u1e80-\u1e85\u1ef2\u1ef3\u2013\u2014\u2018-\u201e\u2022\u2026\u20ac]*$/;

/** Words over a picture. `size` in thousandths of its width; `plate` is the colour laid under them, null for none. */
export const OverWordsSchema = v.strictObject({
  text: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'Say what stands over the picture.'),
    v.regex(IN_THE_FACE, 'Only Latin letters, figures and punctuation can stand over a picture.'),
    v.check((text) => spelled(text).length <= SPELLED_LIMIT, 'At most about 80 letters fit over a picture.'),
  ),
  place: v.picklist(OVER_PLACES),
  size: v.pipe(v.number(), v.integer(), v.minValue(LEAST_SIZE), v.maxValue(MOST_SIZE)),
  ink: ColourSchema,
  plate: v.nullable(ColourSchema),
});
export type OverWords = v.InferOutput<typeof OverWordsSchema>;

/** Words in the letters that a key may hold: letters and figures as they are, a space as "_", all else as "-hex-". */
export function spelled(text: string): string {
  return text.replace(/[^A-Za-z0-9]/gu, (other) =>
    other === ' ' ? '_' : `-${(other.codePointAt(0) ?? 0).toString(16)}-`,
  );
}

/** The words of a spelling; whatever is none comes back as other words, which are spelled otherwise. */
export function unspelled(spelling: string): string {
  return spelling
    .replaceAll('_', ' ')
    .replace(/-([0-9a-f]{1,5})-/g, (_, hex: string) => String.fromCodePoint(Number.parseInt(hex, 16)));
}

/** Shares of the picture's width, and of the size of the words. `style-sheet.ts` says the same in CSS. */
export const OVER_MARGIN = 0.04;
export const LINE_HEIGHT = 1.2;
export const PLATE_SIDE = 0.35;
export const PLATE_RISE = 0.07;

/** Where the baseline of a line lies under its top, by the face's ascent and descent, as a share of its size. */
const BASELINE = (LINE_HEIGHT - 1.088) / 2 + 0.878;
/** Words that do not fit are set smaller by this much until they do. */
const SMALLER = 0.95;
const LEAST_EM_PX = 1;

/** A line of words in px: `x` is its left, middle or right by the anchor. */
export interface SetLine {
  readonly text: string;
  readonly x: number;
  readonly baseline: number;
  readonly box: PixelBox;
}

export interface PixelBox {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export interface SetWords {
  /** The size of the words in px. */
  readonly em: number;
  /** Whether they had to be set smaller than was asked, to fit. */
  readonly isSmaller: boolean;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly lines: readonly SetLine[];
}

/**
 * Words as they are set over a picture of a size in px: broken into lines where there is no more room, set smaller
 * where they still do not fit, at their place. The browser and the server draw from this one account.
 */
export function setWords(words: OverWords, size: Size): SetWords {
  const asked = (words.size / 1000) * size.width;
  let em = asked;
  let lines = brokenAt(words.text, roomFor(words, size, em));
  while (em > LEAST_EM_PX && !fits(lines, words, size, em)) {
    em *= SMALLER;
    lines = brokenAt(words.text, roomFor(words, size, em));
  }
  return { em, isSmaller: em < asked, anchor: anchorOf(words.place), lines: placed(lines, words, size, em) };
}

/** The room for a line, as a share of the size of the words. */
function roomFor(words: OverWords, size: Size, em: number): number {
  return (size.width - 2 * marginOf(size)) / em - 2 * sideOf(words);
}

/** A strip that is hardly high leaves words some room. */
const MOST_MARGIN = 0.2;

const marginOf = ({ width, height }: Size) => Math.min(OVER_MARGIN * width, MOST_MARGIN * height);

const sideOf = ({ plate }: OverWords) => (plate ? PLATE_SIDE : 0);
const riseOf = ({ plate }: OverWords) => (plate ? PLATE_RISE : 0);

/** Lines as a person broke them, each broken again between its words where it is longer than `room`, a share of the words' size. */
export function brokenAt(text: string, room: number): readonly string[] {
  return text.split('\n').flatMap((line) => {
    const broken: string[] = [];
    let current = '';
    for (const word of line.split(/\s+/).filter(Boolean)) {
      const longer = current ? `${current} ${word}` : word;
      if (current && advanceOf(longer) > room) {
        broken.push(current);
        current = word;
      } else current = longer;
    }
    return [...broken, current];
  });
}

function fits(lines: readonly string[], words: OverWords, size: Size, em: number): boolean {
  const high = (lines.length * LINE_HEIGHT + 2 * riseOf(words)) * em;
  if (high > size.height - 2 * marginOf(size)) return false;
  const room = roomFor(words, size, em);
  return lines.every((line) => advanceOf(line) <= room);
}

function anchorOf(place: OverPlace): SetWords['anchor'] {
  if (place.endsWith('left')) return 'start';
  return place.endsWith('right') ? 'end' : 'middle';
}

function placed(lines: readonly string[], words: OverWords, size: Size, em: number): readonly SetLine[] {
  const margin = marginOf(size);
  const [side, rise] = [sideOf(words) * em, riseOf(words) * em];
  const anchor = anchorOf(words.place);
  const high = lines.length * LINE_HEIGHT * em;
  const first = words.place.startsWith('top')
    ? margin + rise
    : words.place.startsWith('bottom')
      ? size.height - margin - rise - high
      : (size.height - high) / 2;
  return lines.flatMap((text, at) => {
    if (text === '') return [];
    const width = advanceOf(text) * em;
    const left =
      anchor === 'start'
        ? margin + side
        : anchor === 'end'
          ? size.width - margin - side - width
          : (size.width - width) / 2;
    const top = first + at * LINE_HEIGHT * em;
    const x = anchor === 'start' ? left : anchor === 'end' ? left + width : left + width / 2;
    const box = {
      left: left - side,
      top: top - rise,
      width: width + 2 * side,
      height: LINE_HEIGHT * em + 2 * rise,
    };
    return [{ text, x, baseline: top + BASELINE * em, box }];
  });
}

/** Words as a step's sentence says them. */
export function sayOver({ text, place }: OverWords): string {
  return `“${text.replace(/\s+/g, ' ')}” over it, at the ${place}`;
}
