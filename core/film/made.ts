import * as v from 'valibot';
import type { Size } from '../media/dimensions.ts';
import { FILM_FORMATS, type FilmFacts, type FilmFormat, isPlayed } from './facts.ts';
import { type FilmRecipe, filmRecipeKey, madeSeconds, madeSize, WHOLE_FILM } from './recipe.ts';
import type { FilmRules } from './rules.ts';

/** The containers that are made: MP4 plays everywhere, WebM is smaller; sound alone is AAC and Opus. */
const MADE_FORMATS = ['mp4', 'webm', 'm4a'] as const satisfies readonly FilmFormat[];
export type MadeFormat = (typeof MADE_FORMATS)[number];

/** A file that was made of a film for the web. Sizes in px, 0 for sound alone; `codecs` as RFC 6381 writes them. */
export const MadeFileSchema = v.object({
  format: v.picklist(MADE_FORMATS),
  width: v.number(),
  height: v.number(),
  bytes: v.number(),
  codecs: v.pipe(v.string(), v.maxLength(80)),
});
export type MadeFile = v.InferOutput<typeof MadeFileSchema>;

/** A file that was made, as it is kept: with the recipe that it was made by. */
export const StoredMadeSchema = v.object({
  ...MadeFileSchema.entries,
  recipe: v.pipe(v.string(), v.maxLength(64)),
});
export type StoredMade = v.InferOutput<typeof StoredMadeSchema>;

/** What is known of a film where a page is written. */
export interface HeldFilm {
  readonly film: FilmFacts;
  readonly recipe: FilmRecipe;
  /** What was made of it by its recipe, as it stands now; none while it is being made. */
  readonly made: readonly MadeFile[];
}

/** A file of a film as it goes out. */
export interface FilmOut extends Size {
  readonly fileName: string;
  /** With codecs where they are known (RFC 6381), so that a browser takes the first that it plays. */
  readonly type: string;
  readonly format: FilmFormat;
  readonly bytes: number;
}

/** On a film of this width every screen of a phone is sharp. */
const PHONE_WIDTH = 720;
/** More pixels than a column's sharp screen has are seen by nobody. */
const SHARP = 2;

/** An even number, as the colours of H.264 and AV1 need it (4:2:0). */
const even = (value: number): number => Math.max(2, Math.round(value / 2) * 2);

/** The widths that a film is made in for columns of targets, in px, the widest first: for sharp screens, and for phones. Never wider than it is. */
export function filmWidths(widest: number, columns: readonly number[]): readonly number[] {
  const wanted = [...columns.map((column) => column * SHARP), PHONE_WIDTH];
  const most = Math.min(Math.max(...wanted), widest);
  const widths = wanted.map((width) => even(Math.min(width, most))).sort((one, other) => other - one);
  const phone = even(Math.min(PHONE_WIDTH, most));
  const kept: number[] = [];
  for (const width of widths) {
    const wider = kept.at(-1) ?? Number.POSITIVE_INFINITY;
    if (width <= wider * NEARLY || (width === phone && width < wider)) kept.push(width);
  }
  return kept;
}

/** A file that is not a fifth narrower than another one saves nobody anything: a page takes the other. */
const NEARLY = 0.8;

/** The sizes that a film is made in, the largest first. */
export function filmSizes(
  { film, recipe }: Pick<HeldFilm, 'film' | 'recipe'>,
  columns: readonly number[],
): readonly Size[] {
  if (!film.picture) return [{ width: 0, height: 0 }];
  const { width, height } = madeSize(recipe, film.picture);
  return filmWidths(width, columns).map((wide) => ({ width: wide, height: even((wide * height) / width) }));
}

/**
 * All files of a film that may go out, those that a browser is to take first in front: what was made of it, else the file as it
 * came. None where it is to be another than it came and is not made yet: nothing that was left out goes out.
 */
export function filmFiles(
  stem: string,
  extension: string,
  { film, recipe, made }: HeldFilm,
): readonly FilmOut[] {
  if (made.length > 0)
    return [...made].sort(inOrder).map(({ format, width, height, bytes, codecs }) => ({
      fileName: madeName(stem, format, width),
      type: `${width === 0 ? SOUND_TYPES[format] : FILM_FORMATS[format].mime}; codecs="${codecs}"`,
      format,
      bytes,
      width,
      height,
    }));
  if (filmRecipeKey(recipe) !== filmRecipeKey(WHOLE_FILM)) return [];
  const { mime } = FILM_FORMATS[film.format];
  const { width = 0, height = 0 } = film.picture ?? {};
  return [
    { fileName: `${stem}.${extension}`, type: mime, format: film.format, bytes: film.bytes, width, height },
  ];
}

/** Containers that hold sound alone go by other names (RFC 4337, RFC 9559). */
const SOUND_TYPES: Readonly<Record<MadeFormat, string>> = {
  mp4: 'audio/mp4',
  m4a: 'audio/mp4',
  webm: 'audio/webm',
};

/** The widest first; of one width the container that is smaller. */
const inOrder = (one: MadeFile, other: MadeFile): number =>
  other.width - one.width || one.bytes - other.bytes;

/** What a file that was made is called: "eel-pass--1440.mp4"; sound has no width. */
export const madeName = (stem: string, format: MadeFormat, width: number): string =>
  width === 0
    ? `${stem}--sound.${FILM_FORMATS[format].extension}`
    : `${stem}--${width}.${FILM_FORMATS[format].extension}`;

/** The file that plays wherever it is opened by itself: MP4 or AAC before anything else. */
export const plainFile = (files: readonly FilmOut[]): FilmOut | undefined =>
  files.find(({ format }) => format === 'mp4' || format === 'm4a') ?? files[0];

/** What the film is as it goes out, for words that are said of it. */
export function factsOut(stem: string, extension: string, held: HeldFilm): FilmFacts {
  const file = plainFile(filmFiles(stem, extension, held));
  const seconds = madeSeconds(held.recipe, held.film.seconds);
  return file ? { ...held.film, format: file.format, bytes: file.bytes, seconds } : { ...held.film, seconds };
}

/** What stands in the way of a film: it is not made yet as its recipe says, or not every browser plays it as it came. */
export function filmFault(held: HeldFilm): 'not-made' | 'not-played' | null {
  if (held.made.length > 0) return null;
  if (filmRecipeKey(held.recipe) !== filmRecipeKey(WHOLE_FILM)) return 'not-made';
  return isPlayed(held.film) ? null : 'not-played';
}

/** A window so wide, in px, and none wider, is a phone's. */
const PHONE_WINDOW = 480;

/**
 * Of the files of a film those that a page needs on which it stands `shown` px wide: sharp there, and no wider than a phone needs
 * on a phone. `media` as `source` takes it (WHATWG HTML, 4.8.2); the empty text for any window.
 */
export function filesShown(
  all: readonly FilmOut[],
  shown: number,
  { takesWebm }: Pick<FilmRules, 'takesWebm'>,
): readonly (FilmOut & { readonly media: string })[] {
  const plain = all.filter(({ format }) => format !== 'webm');
  const files = takesWebm || plain.length === 0 ? all : plain;
  const widths = [...new Set(files.map(({ width }) => width))].sort((one, other) => one - other);
  const leastFor = (wide: number) => widths.find((width) => width >= even(wide)) ?? widths.at(-1) ?? 0;
  const sharp = leastFor(shown * SHARP);
  const phone = Math.min(sharp, leastFor(PHONE_WIDTH));
  const of = (wide: number, media: string) =>
    files.filter(({ width }) => width === wide).map((file) => ({ ...file, media }));
  return sharp === phone
    ? of(sharp, '')
    : [...of(sharp, `(min-width: ${PHONE_WINDOW + 1}px)`), ...of(phone, '')];
}
