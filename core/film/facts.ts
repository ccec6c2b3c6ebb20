import * as v from 'valibot';
import { sayTime } from '../embed/parameters.ts';

/** The containers of films and sound that are held, by what their bytes are. */
export const FILM_FORMATS = {
  mp4: { mime: 'video/mp4', extension: 'mp4', says: 'MP4' },
  mov: { mime: 'video/quicktime', extension: 'mov', says: 'MOV' },
  webm: { mime: 'video/webm', extension: 'webm', says: 'WebM' },
  mkv: { mime: 'video/x-matroska', extension: 'mkv', says: 'MKV' },
  mp3: { mime: 'audio/mpeg', extension: 'mp3', says: 'MP3' },
  m4a: { mime: 'audio/mp4', extension: 'm4a', says: 'M4A' },
  wav: { mime: 'audio/wav', extension: 'wav', says: 'WAV' },
  ogg: { mime: 'audio/ogg', extension: 'ogg', says: 'Ogg' },
  flac: { mime: 'audio/flac', extension: 'flac', says: 'FLAC' },
} as const satisfies Readonly<
  Record<string, { readonly mime: string; readonly extension: string; readonly says: string }>
>;
export type FilmFormat = keyof typeof FILM_FORMATS;
const FILM_FORMAT_NAMES = [
  'mp4',
  'mov',
  'webm',
  'mkv',
  'mp3',
  'm4a',
  'wav',
  'ogg',
  'flac',
] as const satisfies readonly FilmFormat[];

const px = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(32_768));
const codec = v.pipe(v.string(), v.maxLength(40));

/** What is known of the file of a film or a recording. */
export const FilmFactsSchema = v.object({
  format: v.picklist(FILM_FORMAT_NAMES),
  bytes: v.number(),
  seconds: v.pipe(v.number(), v.minValue(0)),
  /** Its pictures, as they are seen once turned; null for sound alone. `rate` in pictures a second, 0 where it is not said. */
  picture: v.nullable(
    v.object({
      width: px,
      height: px,
      rate: v.number(),
      codec,
      /** Brighter and deeper than the screens of most readers (ITU-R BT.2100). */
      isHdr: v.optional(v.boolean(), false),
    }),
  ),
  /** Null for a film without sound. */
  sound: v.nullable(v.object({ codec, channels: v.pipe(v.number(), v.integer(), v.minValue(1)) })),
  /** The captions that lie inside it as text, by their place among its streams of captions; `language` as it says it, or empty. */
  inside: v.optional(
    v.pipe(
      v.array(v.object({ at: v.pipe(v.number(), v.integer(), v.minValue(0)), language: v.string() })),
      v.readonly(),
    ),
    [],
  ),
});
export type FilmFacts = v.InferOutput<typeof FilmFactsSchema>;

/** What it is, as a credit and a label name it. */
export const filmKind = ({ picture }: Pick<FilmFacts, 'picture'>): 'film' | 'sound' =>
  picture === null ? 'sound' : 'film';

/** Its length as a clock shows it: "1:12". */
export const sayFilmLength = ({ seconds }: Pick<FilmFacts, 'seconds'>): string =>
  sayTime(Math.max(1, Math.round(seconds)));

/** Codecs that every browser plays in each container without being made anew (WHATWG HTML leaves them open; as of 2026). */
const PLAYED: Readonly<Partial<Record<FilmFormat, { readonly picture: RegExp; readonly sound: RegExp }>>> = {
  mp4: { picture: /^h264$/, sound: /^(?:aac|mp3)$/ },
  webm: { picture: /^(?:vp8|vp9|av1)$/, sound: /^(?:opus|vorbis)$/ },
  mp3: { picture: /^$/, sound: /^mp3$/ },
  m4a: { picture: /^$/, sound: /^aac$/ },
  wav: { picture: /^$/, sound: /^pcm_/ },
  flac: { picture: /^$/, sound: /^flac$/ },
};

/** Whether readers' browsers play it as it came. */
export function isPlayed({ format, picture, sound }: FilmFacts): boolean {
  const played = PLAYED[format];
  return (
    played !== undefined &&
    (picture === null || played.picture.test(picture.codec)) &&
    (sound === null || played.sound.test(sound.codec))
  );
}
