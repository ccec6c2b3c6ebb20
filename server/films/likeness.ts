import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { madeSeconds } from '#core/film/recipe.ts';
import type { Size } from '#core/media/dimensions.ts';
import { pictureArgs, QUALITIES } from './encode.ts';
import { changes, type FilmSource, pictureGraph, readingArgs, SAFE } from './graph.ts';
import { runLong } from './long-program.ts';

/** What a film is looked at by: three moments of it, each a second long; of a short one all. */
const LOOKS = [0.15, 0.5, 0.85];
const LOOK_SECONDS = 1;
const MEMORY = 12_000_000_000;
const LOOK_LIMIT_SECONDS = 1200;

interface Wanted {
  readonly size: Size;
  /** On how many px of a page it is shown: at this width likeness is judged. */
  readonly shown: number;
  /** How alike, from 0 to 1 (SSIM on luma, Wang et al. 2004). */
  readonly likeness: number;
  /** Where what is tried lies for a moment. */
  readonly folder: string;
  readonly signal: AbortSignal;
}

/**
 * The lowest quality at which a film still looks the same, by halving the list of qualities that are tried. The looks are cut
 * out of it once, lossless; the best quality where none is alike enough (grain, water).
 */
export async function qualityFor(
  source: FilmSource,
  format: 'mp4' | 'webm',
  wanted: Wanted,
): Promise<number> {
  const id = randomUUID();
  const reference = join(wanted.folder, `look-${id}.mkv`);
  const tried = join(wanted.folder, `look-${id}-tried.mkv`);
  try {
    await cutLooks(source, wanted, reference);
    const qualities = QUALITIES[format];
    let [good, bad] = [0, qualities.length];
    while (bad - good > 1) {
      const middle = Math.floor((good + bad) / 2);
      const crf = qualities[middle] ?? 0;
      const alike = await likenessAt(format, crf, { reference, tried, wanted });
      if (alike >= wanted.likeness) good = middle;
      else bad = middle;
    }
    return qualities[good] ?? 0;
  } finally {
    await rm(reference, { force: true });
    await rm(tried, { force: true });
  }
}

/** Some seconds of it, as they will be made but for their quality. */
async function cutLooks(source: FilmSource, { size, signal }: Wanted, to: string): Promise<void> {
  const seconds = madeSeconds(source.recipe, source.film.seconds);
  const isShort = seconds <= LOOKS.length * LOOK_SECONDS * 2;
  const graph = isShort ? pictureGraph(source, size) : joined(LOOKS.length, source, size);
  const inputs = isShort
    ? readingArgs(source)
    : LOOKS.flatMap((part) => [
        '-ss',
        (source.film.seconds * part).toFixed(3),
        '-t',
        String(LOOK_SECONDS),
        ...SAFE,
        '-i',
        source.path,
      ]);
  await run([...inputs, '-filter_complex', graph, '-map', '[picture]', ...LOSSLESS, '-y', to], signal);
}

const LOSSLESS = ['-c:v', 'libx264', '-qp', '0', '-preset', 'ultrafast'];

/** Each look is turned, cut and scaled by itself, and then joined. */
function joined(count: number, { film, recipe }: FilmSource, size: Size): string {
  if (!film.picture) return '';
  const steps = [
    ...changes(film.picture, recipe),
    `scale=${size.width}:${size.height}:flags=lanczos`,
    'setsar=1',
    'format=yuv420p',
  ].join(',');
  const each = Array.from({ length: count }, (_, at) => `[${at}:v:0]${steps}[look${at}];`).join('');
  const names = Array.from({ length: count }, (_, at) => `[look${at}]`).join('');
  return `${each}${names}concat=n=${count}:v=1:a=0[picture]`;
}

interface Trial {
  readonly reference: string;
  readonly tried: string;
  readonly wanted: Wanted;
}

async function likenessAt(
  format: 'mp4' | 'webm',
  crf: number,
  { reference, tried, wanted }: Trial,
): Promise<number> {
  const { shown, size, signal } = wanted;
  await run([...SAFE, '-i', reference, ...pictureArgs(format, crf), '-y', tried], signal);
  const width = Math.min(size.width, Math.max(16, shown));
  const said = await run(
    [
      ...[...SAFE, '-i', tried],
      ...[...SAFE, '-i', reference],
      '-filter_complex',
      `[0:v]scale=${width}:-2:flags=area[one];[1:v]scale=${width}:-2:flags=area[other];[one][other]ssim`,
      '-f',
      'null',
      '-',
    ],
    signal,
  );
  return Number(/SSIM Y:([\d.]+)/.exec(said)?.[1] ?? 0);
}

const run = (args: readonly string[], signal: AbortSignal): Promise<string> =>
  runLong({
    program: 'ffmpeg',
    args: ['-nostdin', '-hide_banner', '-nostats', '-v', 'info', ...args],
    bytes: MEMORY,
    seconds: LOOK_LIMIT_SECONDS,
    signal,
  });
