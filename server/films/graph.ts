import type { FilmFacts } from '#core/film/facts.ts';
import { type FilmRecipe, isWhole, keptSpans, madeSize, type Span } from '#core/film/recipe.ts';
import type { Size } from '#core/media/dimensions.ts';

/** A film with what is made of it. */
export interface FilmSource {
  /** Where its file lies. */
  readonly path: string;
  readonly film: FilmFacts;
  readonly recipe: FilmRecipe;
}

/** Only files themselves are read, and only containers that are held: lists that name other files or addresses open nothing. */
export const SAFE = [
  '-protocol_whitelist',
  'file',
  '-format_whitelist',
  'mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,mp3,wav,ogg,flac',
];

/** Faster than this nobody sees a difference on the web. */
const MOST_RATE = 60;

/** Of what says no rate, as recordings do whose pictures come as they come. */
const UNSAID_RATE = 30;

const inSeconds = (millis: number): string => (millis / 1000).toFixed(3);

/** What ffmpeg is told about reading a film, where at most one stretch of it stays. */
export function readingArgs({ path, film, recipe }: FilmSource): readonly string[] {
  const spans = keptSpans(recipe, film.seconds);
  const [only] = spans;
  const stretch =
    only && spans.length === 1 && !isWhole(spans, film.seconds)
      ? ['-ss', inSeconds(only.from), '-to', inSeconds(only.to)]
      : [];
  return [...stretch, ...SAFE, '-i', path];
}

/** The graph that leads from a film to its pictures of a size: `[picture]`. The empty text for sound alone. */
export function pictureGraph(source: FilmSource, size: Size): string {
  const { film, recipe } = source;
  if (!film.picture) return '';
  return `${kept(source, 'v')}${[...changes(film.picture, recipe), `scale=${size.width}:${size.height}:flags=lanczos`, 'setsar=1', 'format=yuv420p'].join(',')}[picture]`;
}

/** What is done to each picture, besides its size. */
export function changes(picture: NonNullable<FilmFacts['picture']>, recipe: FilmRecipe): readonly string[] {
  const { crop, turn } = recipe;
  const seen = madeSize({ turn, crop: null }, picture);
  const cut = crop && {
    ...madeSize(recipe, picture),
    left: Math.round(crop.left * seen.width),
    top: Math.round(crop.top * seen.height),
  };
  return [
    // Of a usual screen's brightness (ITU-R BT.709), as each picture of it was meant to look there.
    ...(picture.isHdr
      ? [
          'zscale=t=linear:npl=100',
          'format=gbrpf32le',
          'zscale=p=bt709',
          'tonemap=hable:desat=0',
          'zscale=t=bt709:m=bt709:r=tv',
          'format=yuv420p',
        ]
      : []),
    ...(picture.rate > MOST_RATE ? [`fps=${MOST_RATE}`] : []),
    ...(picture.rate === 0 ? [`fps=${UNSAID_RATE}`] : []),
    // Pixels that are not square are drawn out before anything is measured on them.
    `scale=${turnedBack(picture)}`,
    ...(turn === 90 ? ['transpose=1'] : []),
    ...(turn === 180 ? ['hflip', 'vflip'] : []),
    ...(turn === 270 ? ['transpose=2'] : []),
    ...(cut ? [`crop=${cut.width}:${cut.height}:${cut.left}:${cut.top}`] : []),
  ];
}

const turnedBack = ({ width, height }: Size): string => `${width}:${height}`;

/** The graph that leads from a film to its sound: `[sound]`; the empty text for a film without. `more` is done to it at the end. */
export function soundGraph(source: FilmSource, more: readonly string[] = []): string {
  if (!source.film.sound) return '';
  // Whatever is heard from more than two places is brought to two.
  return `${kept(source, 'a')}${['aresample=48000', 'aformat=channel_layouts=mono|stereo', ...more].join(',')}[sound]`;
}

/** The stretches that stay, one behind the other: a label to go on from. */
function kept({ film, recipe }: FilmSource, of: 'v' | 'a'): string {
  const spans = keptSpans(recipe, film.seconds);
  if (spans.length === 1) return of === 'v' ? `[0:v:0]` : `[0:a:0]`;
  const letter = of === 'v' ? '' : 'a';
  const name = (what: string, at: number) => `[${of}${what}${at}]`;
  const copies = spans.map((_, at) => name('in', at)).join('');
  const parts = spans.map(
    (span, at) =>
      `${name('in', at)}${letter}trim=${between(span)},${letter}setpts=PTS-STARTPTS${name('out', at)};`,
  );
  const joined = spans.map((_, at) => name('out', at)).join('');
  return `[0:${of}:0]${letter}split=${spans.length}${copies};${parts.join('')}${joined}concat=n=${spans.length}:v=${of === 'v' ? 1 : 0}:a=${of === 'a' ? 1 : 0}[${of}whole];[${of}whole]`;
}

const between = ({ from, to }: Span): string => `start=${inSeconds(from)}:end=${inSeconds(to)}`;
