import * as v from 'valibot';
import { CropRectSchema } from '../media/condition.ts';
import type { Size } from '../media/dimensions.ts';

const millis = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(366 * 86_400_000));

/** A part of a film, in milliseconds of the file as it came. */
const SpanSchema = v.strictObject({ from: millis, to: millis });
export type Span = v.InferOutput<typeof SpanSchema>;

const MOST_LEFT_OUT = 50;
const TURNS = [0, 90, 180, 270] as const;

/** What is made of a film: data, so that the file as it came stays what it is. Times in milliseconds of that file. */
export const FilmRecipeSchema = v.strictObject({
  from: millis,
  /** Null for its end. */
  to: v.nullable(millis),
  leftOut: v.pipe(v.array(SpanSchema), v.maxLength(MOST_LEFT_OUT), v.readonly()),
  /** Clockwise, in degrees, of the pictures as they are seen. */
  turn: v.picklist(TURNS),
  /** The part that stays, in fractions of the turned pictures. */
  crop: v.nullable(CropRectSchema),
  /** Whether its sound is brought to the loudness of the house. */
  isLevelled: v.boolean(),
  /** The picture that shows it before it plays; null for one near its beginning. */
  still: v.nullable(millis),
});
export type FilmRecipe = v.InferOutput<typeof FilmRecipeSchema>;

/** A film of which nothing is left out and nothing changed. */
export const WHOLE_FILM: FilmRecipe = {
  from: 0,
  to: null,
  leftOut: [],
  turn: 0,
  crop: null,
  isLevelled: false,
  still: null,
};

/** Less than this is no part of a film: a picture or two. */
const LEAST_MILLIS = 100;

/** The parts of a film that stay, in order, none touching another. At least one: a recipe that leaves out everything leaves out nothing. */
export function keptSpans(
  { from, to, leftOut }: Pick<FilmRecipe, 'from' | 'to' | 'leftOut'>,
  seconds: number,
): readonly Span[] {
  const end = Math.round(seconds * 1000);
  let kept: Span[] = [{ from: Math.min(from, end), to: Math.min(to ?? end, end) }];
  for (const out of leftOut.filter((one) => one.to > one.from))
    kept = kept.flatMap((span) =>
      [
        { from: span.from, to: Math.min(span.to, out.from) },
        { from: Math.max(span.from, out.to), to: span.to },
      ].filter((part) => part.to > part.from),
    );
  const long = kept.filter((span) => span.to - span.from >= LEAST_MILLIS);
  return long.length > 0 ? long : [{ from: 0, to: end }];
}

/** Whether all of a film stays, so that nothing has to be cut. */
export function isWhole(spans: readonly Span[], seconds: number): boolean {
  const [only] = spans;
  return spans.length === 1 && only?.from === 0 && only.to >= Math.round(seconds * 1000);
}

/** How long what is made of it plays, in seconds. */
export const madeSeconds = (recipe: FilmRecipe, seconds: number): number =>
  keptSpans(recipe, seconds).reduce((sum, { from, to }) => sum + to - from, 0) / 1000;

/** Where a moment of the file as it came is in what is made of it, in milliseconds; null for one that is left out. */
export function madeAt(spans: readonly Span[], at: number): number | null {
  let before = 0;
  for (const { from, to } of spans) {
    if (at >= from && at <= to) return before + at - from;
    before += to - from;
  }
  return null;
}

/** What lasts from one moment to another (a caption, a chapter), as it lies in what is made; what is left out has no part in it. */
export function madeOf<T extends Span>(spans: readonly Span[], lasting: readonly T[]): readonly T[] {
  return lasting.flatMap((one) => {
    let before = 0;
    const parts: Span[] = [];
    for (const { from, to } of spans) {
      const [begins, ends] = [Math.max(one.from, from), Math.min(one.to, to)];
      if (ends > begins) parts.push({ from: before + begins - from, to: before + ends - from });
      before += to - from;
    }
    const [first, last] = [parts[0], parts.at(-1)];
    return first && last ? [{ ...one, from: first.from, to: last.to }] : [];
  });
}

/** The size of what is made of pictures of a size, in px, before it is brought to a width. */
export function madeSize({ turn, crop }: Pick<FilmRecipe, 'turn' | 'crop'>, size: Size): Size {
  const turned = turn % 180 === 0 ? size : { width: size.height, height: size.width };
  return {
    width: Math.max(2, Math.round(turned.width * (crop?.width ?? 1))),
    height: Math.max(2, Math.round(turned.height * (crop?.height ?? 1))),
  };
}

/** In letters: what is changed of a film besides its still, for the names under which what is made of it is kept. "plain" for nothing. */
export function filmRecipeKey({ from, to, leftOut, turn, crop, isLevelled }: FilmRecipe): string {
  const parts = [
    from > 0 || to !== null ? `t${from}-${to ?? ''}` : '',
    ...leftOut.map((out) => `o${out.from}-${out.to}`),
    turn > 0 ? `r${turn}` : '',
    crop
      ? `c${[crop.left, crop.top, crop.width, crop.height].map((part) => Math.round(part * 10_000)).join('-')}`
      : '',
    isLevelled ? 'l' : '',
  ].filter(Boolean);
  return parts.join('_') || 'plain';
}

/** What is done to a film, in words: "first 1.0 s left out, turned, sound at −16 LUFS". Empty for nothing. */
export function sayFilmRecipe(recipe: FilmRecipe): string {
  const { from, to, leftOut, turn, crop, isLevelled } = recipe;
  return [
    from > 0 ? `first ${(from / 1000).toFixed(1)} s left out` : '',
    to === null ? '' : `ends at ${(to / 1000).toFixed(1)} s`,
    leftOut.length === 1 ? 'a part cut out' : '',
    leftOut.length > 1 ? `${leftOut.length} parts cut out` : '',
    crop ? 'cropped' : '',
    turn > 0 ? `turned ${turn}°` : '',
    isLevelled ? `sound at −${-AIMED_LUFS} LUFS` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** How loud sound is on the web, in LUFS (ITU-R BS.1770, the measure of EBU R 128), and the most that a peak reaches, in dBTP. */
export const AIMED_LUFS = -16;
export const MOST_PEAK = -1;
