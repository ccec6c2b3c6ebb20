import type { FilmFacts } from '#core/film/facts.ts';
import { type Heard, readHeard, SILENCE, wavePerSecond } from '#core/film/heard.ts';
import { AIMED_LUFS, MOST_PEAK, madeSeconds, WHOLE_FILM } from '#core/film/recipe.ts';
import { waveLetter } from '#core/film/wave.ts';
import { type FilmSource, readingArgs, soundGraph } from './graph.ts';
import { runLong } from './long-program.ts';

const MEMORY = 4_000_000_000;
/** Listening goes a hundred times as fast as playing; a tenth of it is patience. */
const secondsFor = ({ seconds }: FilmFacts): number => 120 + seconds / 10;

/** What is heard in a film from its beginning to its end, with how loud it is at each moment. Null for a film without sound. */
export async function listen(
  source: Omit<FilmSource, 'recipe'>,
  signal: AbortSignal,
): Promise<{ readonly heard: Heard; readonly wave: string } | null> {
  if (!source.film.sound) return null;
  const whole = { ...source, recipe: WHOLE_FILM };
  const measured = ['ebur128=peak=true', `silencedetect=noise=${SILENCE.decibels}dB:d=${SILENCE.seconds}`];
  const wave = new Loudness(wavePerSecond(source.film.seconds));
  const said = await measure(whole, measured, signal, (bytes) => wave.add(bytes));
  return { heard: readHeard(said, source.film.seconds), wave: wave.letters() };
}

/** The least hertz at which a voice's loudness is drawn rightly. */
const DRAWN_HERTZ = 8000;

async function measure(
  source: FilmSource,
  filters: readonly string[],
  signal: AbortSignal,
  onOut?: (bytes: Buffer) => void,
): Promise<string> {
  const { film } = source;
  return runLong({
    program: 'ffmpeg',
    args: [
      '-nostdin',
      '-hide_banner',
      '-nostats',
      '-v',
      'info',
      ...readingArgs(source),
      '-filter_complex',
      `${soundGraph(source, filters)}`,
      '-map',
      '[sound]',
      ...(onOut ? ['-ac', '1', '-ar', String(DRAWN_HERTZ), '-f', 's16le', 'pipe:1'] : ['-f', 'null', '-']),
    ],
    bytes: MEMORY,
    seconds: secondsFor(film),
    signal,
    ...(onOut ? { onOut } : {}),
  });
}

/** The loudness of each moment of a sound that comes in parts: 16 bits a sample, one place. */
class Loudness {
  readonly #perMoment: number;
  #letters = '';
  #sum = 0;
  #count = 0;
  #odd: Buffer = Buffer.alloc(0);

  constructor(perSecond: number) {
    this.#perMoment = Math.max(1, Math.round(DRAWN_HERTZ / perSecond));
  }

  add(bytes: Buffer): void {
    const whole = this.#odd.length > 0 ? Buffer.concat([this.#odd, bytes]) : bytes;
    const even = whole.length - (whole.length % 2);
    for (let at = 0; at < even; at += 2) {
      this.#sum += (whole.readInt16LE(at) / 0x8000) ** 2;
      this.#count += 1;
      if (this.#count === this.#perMoment) this.#moment();
    }
    this.#odd = whole.subarray(even);
  }

  letters(): string {
    if (this.#count > 0) this.#moment();
    return this.#letters;
  }

  #moment(): void {
    this.#letters += waveLetter(Math.sqrt(this.#sum / this.#count));
    this.#sum = 0;
    this.#count = 0;
  }
}

/** Nearer than this to what is aimed at, in LU, nobody hears a difference (EBU R 128, tolerance for what is made live: 1 LU). */
const NEAR_ENOUGH = 0.5;
const MOST_TRIES = 3;
/** No recording is raised by more, in dB: what is left then is noise. */
const MOST_RAISED = 30;

/**
 * What brings the sound of a film to the loudness of the web: one change of loudness for all of it, and its highest peaks held under
 * the limit, at four times the samples as true peaks are measured (ITU-R BS.1770-4, annex 2). None for what is silent.
 */
export async function levelling(source: FilmSource, signal: AbortSignal): Promise<readonly string[]> {
  if (!source.recipe.isLevelled || !source.film.sound) return [];
  let gain = 0;
  let filters: readonly string[] = [];
  for (let tries = 0; tries < MOST_TRIES; tries += 1) {
    const said = await measure(source, [...filters, 'ebur128=peak=true'], signal);
    const { lufs } = readHeard(said, madeSeconds(source.recipe, source.film.seconds));
    if (lufs === null || Math.abs(AIMED_LUFS - lufs) <= NEAR_ENOUGH) break;
    gain = Math.min(MOST_RAISED, gain + AIMED_LUFS - lufs);
    filters = louder(gain);
  }
  return filters;
}

function louder(decibels: number): readonly string[] {
  const limit = (10 ** ((MOST_PEAK - HEADROOM) / 20)).toFixed(4);
  return [
    `volume=${decibels.toFixed(2)}dB`,
    'aresample=192000',
    `alimiter=limit=${limit}:level=false:attack=5:release=50`,
    'aresample=48000',
  ];
}

/** What encoding may add to a peak, in dB. */
const HEADROOM = 0.5;
