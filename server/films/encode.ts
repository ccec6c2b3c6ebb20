import type { MadeFormat } from '#core/film/made.ts';
import type { Size } from '#core/media/dimensions.ts';
import { type FilmSource, pictureGraph, readingArgs, soundGraph } from './graph.ts';

/** How a file is made of a film. `crf` is the quality of its pictures, of sound alone nothing. */
export interface Encoding {
  readonly format: MadeFormat;
  readonly size: Size;
  readonly crf: number;
  /** What is done to its sound at the end, as filters of ffmpeg. */
  readonly level: readonly string[];
}

/**
 * Of a painted marsh with grain at 1280 px, SVT-AV1 at preset 10 takes twice the time of x264 and half its bytes at the same
 * likeness; at preset 8 three times as long again for a tenth less. VP9 took longer than both and was larger than either.
 */
const AV1_PRESET = '10';

/**
 * Qualities that are tried for a container, the best first. Above the first no difference is seen on a painted marsh at the shown
 * size; below the last H.264 falls into blocks, whatever the likeness says.
 */
export const QUALITIES: Readonly<Record<'mp4' | 'webm', readonly number[]>> = {
  mp4: [18, 20, 22, 24, 26, 28, 30, 32],
  webm: [26, 30, 34, 38, 42, 46, 50, 54],
};

/**
 * Of x264 and SVT-AV1 fixed numbers of threads: on another machine the very same file comes of it. Four keep two to eight processors
 * busy; more cost likeness.
 */
const THREADS = '4';
const STEREO_RATE = { mp4: '128k', m4a: '128k', webm: '96k' } as const;

/** What is told to ffmpeg about pictures of a quality. */
export function pictureArgs(format: 'mp4' | 'webm', crf: number): readonly string[] {
  if (format === 'mp4')
    return [
      '-c:v',
      'libx264',
      '-preset',
      'medium',
      '-profile:v',
      'high',
      '-crf',
      String(crf),
      '-threads',
      THREADS,
    ];
  // A whole picture every ten seconds at least, so that a reader can begin anywhere.
  return [
    '-c:v',
    'libsvtav1',
    '-preset',
    AV1_PRESET,
    '-crf',
    String(crf),
    '-g',
    '240',
    '-svtav1-params',
    'lp=4',
  ];
}

const soundArgs = (format: MadeFormat): readonly string[] =>
  format === 'webm'
    ? ['-c:a', 'libopus', '-b:a', STEREO_RATE.webm]
    : ['-c:a', 'aac', '-b:a', STEREO_RATE[format]];

/** All that is told to ffmpeg to make a file of a film: nothing of what the file says of itself goes along, and no time of making. */
export function encodeArgs(source: FilmSource, encoding: Encoding, to: string): readonly string[] {
  const { format, size, crf, level } = encoding;
  const graphs = [pictureGraph(source, size), soundGraph(source, level)].filter(Boolean);
  const { picture, sound } = source.film;
  return [
    '-nostdin',
    '-v',
    'error',
    '-progress',
    'pipe:1',
    ...readingArgs(source),
    '-filter_complex',
    graphs.join(';'),
    ...(picture && format !== 'm4a' ? ['-map', '[picture]', ...pictureArgs(format, crf)] : []),
    ...(sound ? ['-map', '[sound]', ...soundArgs(format)] : []),
    '-map_metadata',
    '-1',
    '-map_chapters',
    '-1',
    '-fflags',
    '+bitexact',
    '-flags:v',
    '+bitexact',
    '-flags:a',
    '+bitexact',
    // Its beginning says where everything lies, so that it plays before all of it is there.
    ...(format === 'webm' ? ['-f', 'webm'] : ['-movflags', '+faststart', '-f', 'mp4']),
    '-y',
    to,
  ];
}
