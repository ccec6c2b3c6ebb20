import * as v from 'valibot';
import { type FilmFacts, FilmFactsSchema, type FilmFormat } from './facts.ts';

const StreamSchema = v.object({
  codec_type: v.optional(v.string(), ''),
  codec_name: v.optional(v.string(), ''),
  width: v.optional(v.number(), 0),
  height: v.optional(v.number(), 0),
  sample_aspect_ratio: v.optional(v.string(), ''),
  avg_frame_rate: v.optional(v.string(), ''),
  color_transfer: v.optional(v.string(), ''),
  profile: v.optional(v.string(), ''),
  level: v.optional(v.number(), 0),
  tags: v.optional(v.record(v.string(), v.unknown()), {}),
  channels: v.optional(v.number(), 0),
  duration: v.optional(v.string(), ''),
  side_data_list: v.optional(v.array(v.looseObject({ rotation: v.optional(v.number()) })), []),
  disposition: v.optional(v.looseObject({ attached_pic: v.optional(v.number(), 0) })),
});
type Stream = v.InferOutput<typeof StreamSchema>;

const ProbedSchema = v.object({
  streams: v.array(StreamSchema),
  format: v.object({
    format_name: v.string(),
    duration: v.optional(v.string(), ''),
    tags: v.optional(v.record(v.string(), v.unknown()), {}),
  }),
});

/** A film with what it calls itself. */
export interface ProbedFilm {
  readonly facts: FilmFacts;
  readonly title: string;
  readonly creator: string;
}

/** Nothing that lasts a year is a film. */
const MOST_SECONDS = 366 * 86_400;

/**
 * What ffprobe says of a file (its JSON with `-show_format -show_streams`), read into facts; null for what has neither pictures
 * nor sound in it, or is no container that is held. Sizes are those that are seen: turned as the file says (its display matrix), and
 * with pixels that are not square drawn out.
 */
export function readProbed(said: unknown, bytes: number): ProbedFilm | null {
  const read = v.safeParse(ProbedSchema, said);
  if (!read.success) return null;
  const { streams, format } = read.output;
  // The cover of a recording is a picture in it, and no film.
  const picture = streams.find(
    ({ codec_type, disposition, width }) => codec_type === 'video' && width > 0 && !disposition?.attached_pic,
  );
  const sound = streams.find(({ codec_type, channels }) => codec_type === 'audio' && channels > 0);
  const container = containerOf(format.format_name, picture, streams);
  if (!container || (!picture && !sound)) return null;
  const seconds = Number(format.duration || picture?.duration || sound?.duration || 0);
  const facts = v.safeParse(FilmFactsSchema, {
    format: container,
    bytes,
    seconds: Number.isFinite(seconds) ? Math.min(Math.max(0, seconds), MOST_SECONDS) : 0,
    picture: picture ? pictureOf(picture) : null,
    sound: sound ? { codec: sound.codec_name.slice(0, 40), channels: sound.channels } : null,
    inside: insideOf(streams),
  });
  if (!facts.success) return null;
  return { facts: facts.output, title: tagOf(format.tags, 'title'), creator: tagOf(format.tags, 'artist') };
}

function pictureOf(stream: Stream) {
  const { width, height, codec_name, avg_frame_rate, sample_aspect_ratio } = stream;
  const [across = 1, down = 1] = sample_aspect_ratio.split(':').map(Number);
  const drawn = across > 0 && down > 0 ? Math.round((width * across) / down) : width;
  const turned = stream.side_data_list.some(({ rotation = 0 }) => Math.abs(rotation) % 180 === 90);
  const [pictures = 0, seconds = 1] = avg_frame_rate.split('/').map(Number);
  const said = seconds > 0 && Number.isFinite(pictures / seconds) ? pictures / seconds : 0;
  const rate = said > MOST_RATE ? 0 : said;
  return {
    width: turned ? height : drawn,
    height: turned ? drawn : height,
    rate: Math.round(rate * 100) / 100,
    codec: codec_name.slice(0, 40),
    isHdr: HDR.test(stream.color_transfer),
  };
}

/** What is recorded picture by picture has no rate, and says the finest of its clock. */
const MOST_RATE = 240;

/** The codecs of a file that was made, as RFC 6381 and the codecs' own registrations write them; null for what is none of them. */
export function codecsOf(said: unknown): string | null {
  const read = v.safeParse(ProbedSchema, said);
  if (!read.success) return null;
  const codecs = read.output.streams.map(codecString);
  return codecs.length > 0 && codecs.every((one) => one !== null) ? codecs.join(', ') : null;
}

/** Of H.264 the numbers of its profiles (ITU-T H.264, A.2). */
const H264_PROFILES: Readonly<Record<string, string>> = {
  'Constrained Baseline': '42e0',
  Main: '4d40',
  High: '6400',
};

function codecString({ codec_name, profile, level }: Stream): string | null {
  const two = (value: number, base: number) => Math.max(0, value).toString(base).padStart(2, '0');
  switch (codec_name) {
    case 'h264':
      return `avc1.${H264_PROFILES[profile] ?? '6400'}${two(level, 16)}`;
    case 'av1':
      // Main tier, eight bits (AV1 Codec ISO Media File Format Binding, 5).
      return `av01.0.${two(level, 10)}M.08`;
    case 'aac':
      return 'mp4a.40.2';
    case 'opus':
      return 'opus';
    default:
      return null;
  }
}

/** Captions that are text; those that are pictures of letters cannot be read. */
const TEXT_CAPTIONS = /^(?:subrip|webvtt|mov_text|ass|ssa|text)$/;
/** Some files carry a thousand. */
const MOST_INSIDE = 20;

const insideOf = (streams: readonly Stream[]) =>
  streams
    .filter(({ codec_type }) => codec_type === 'subtitle')
    .map(({ codec_name, tags }, at) => ({ at, codec_name, language: tagOf(tags, 'language').slice(0, 12) }))
    .filter(({ codec_name }) => TEXT_CAPTIONS.test(codec_name))
    .slice(0, MOST_INSIDE)
    .map(({ at, language }) => ({ at, language: language === 'und' ? '' : language }));

/** The transfer curves of films that are brighter than a usual screen: PQ and HLG (ITU-R BT.2100). */
const HDR = /^(?:smpte2084|arib-std-b67)$/;

/** WebM is Matroska with codecs of the open web alone (its container guidelines). */
const OPEN = /^(?:vp8|vp9|av1|opus|vorbis)$/;

function containerOf(
  name: string,
  picture: Stream | undefined,
  streams: readonly Stream[],
): FilmFormat | null {
  const names = name.split(',');
  if (names.includes('mp4')) return picture ? 'mp4' : 'm4a';
  if (names.includes('webm'))
    return streams.every(
      ({ codec_name, codec_type }) => !/^(?:video|audio)$/.test(codec_type) || OPEN.test(codec_name),
    )
      ? 'webm'
      : 'mkv';
  return (['mp3', 'wav', 'ogg', 'flac'] as const).find((one) => names.includes(one)) ?? null;
}

const MOST_LETTERS = 300;

/** What a file calls itself, as one line. */
function tagOf(tags: Readonly<Record<string, unknown>>, name: string): string {
  const found = Object.entries(tags).find(([key]) => key.toLowerCase() === name)?.[1];
  return typeof found === 'string' ? found.replace(/\s+/g, ' ').trim().slice(0, MOST_LETTERS) : '';
}
