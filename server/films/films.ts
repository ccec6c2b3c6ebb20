import { randomUUID } from 'node:crypto';
import { mkdir, open, readFile, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { type FilmFacts, filmKind } from '#core/film/facts.ts';
import { type ProbedFilm, readProbed } from '#core/film/probe.ts';
import { WHOLE_FILM } from '#core/film/recipe.ts';
import type { Config } from '../config.ts';
import { runProgram } from '../foreign/program.ts';
import { shortName } from '../imaging/read-original.ts';
import { HttpProblem } from '../problem.ts';
import { SAFE } from './graph.ts';
import { runLong } from './long-program.ts';
import { stillFilter, stillMoment } from './still.ts';

/** A film or a recording as it was read. */
export interface ReadFilm extends ProbedFilm {
  /** A picture of it, made when it is asked for: a still of a film, the loudness of a recording drawn over its length. */
  readonly still: () => Promise<Buffer>;
}

const START_BYTES = 4096;
/** Facts stand at the beginning or end of a file; 2 GB on a slow disk are found in a second. */
const PROBE = { millis: 15_000, bytes: 2_000_000_000, answerBytes: 2_000_000 };
/** A still near the beginning is there at once; the loudness of an hour takes some seconds. */
/** Reading two gigabytes through. */
const READ = { seconds: 60, bytes: 4_000_000_000 };
const STILL = { millis: 60_000, bytes: 4_000_000_000, answerBytes: 100_000 };
const DRAWN = { width: 1600, height: 900 };

/** What a film or a recording is; null for a file that is none. Throws an HttpProblem with a sentence for one that cannot be taken. */
export async function readFilm(
  { dataFolder }: Pick<Config, 'dataFolder'>,
  { path, name }: { readonly path: string; readonly name: string },
): Promise<ReadFilm | null> {
  if (!(await mayBeFilm(path))) return null;
  const { size } = await stat(path);
  const said = await runProgram(
    'ffprobe',
    ['-v', 'error', ...SAFE, '-print_format', 'json', '-show_format', '-show_streams', path],
    PROBE,
  ).catch((cause: unknown) => {
    throw broken(name, cause);
  });
  const film = readProbed(parsed(said), size);
  if (!film)
    throw new HttpProblem(
      415,
      `${shortName(name)} has neither moving pictures nor sound in it that can be read. Nothing was kept of it.`,
    );
  const seconds = film.facts.seconds || (await playedSeconds(path, name));
  if (seconds === 0) throw broken(name, null);
  const facts = { ...film.facts, seconds };
  return { ...film, facts, still: () => stillOf(dataFolder, path, name, facts) };
}

/** Of what a browser recorded nothing says how long it is: it is read to its end, without being decoded. */
async function playedSeconds(path: string, name: string): Promise<number> {
  const said = await runLong({
    program: 'ffmpeg',
    args: ['-nostdin', '-hide_banner', '-v', 'info', ...SAFE, '-i', path, '-c', 'copy', '-f', 'null', '-'],
    bytes: READ.bytes,
    seconds: READ.seconds,
    signal: AbortSignal.timeout(READ.seconds * 1000),
  }).catch((cause: unknown) => {
    throw broken(name, cause);
  });
  const [, hours = 0, minutes = 0, seconds = 0] =
    [...said.matchAll(/time=(\d+):(\d\d):(\d\d(?:\.\d+)?)/g)].at(-1) ?? [];
  return Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds);
}

function parsed(said: string): unknown {
  try {
    return JSON.parse(said);
  } catch {
    return null;
  }
}

const broken = (name: string, cause: unknown) =>
  new HttpProblem(
    422,
    `${shortName(name)} is broken, or was cut off before its end: how long it is cannot be read. Nothing was kept of it. Send it again from where it is whole.`,
    {},
    { cause },
  );

/** Kinds of ISO files that are pictures (ISO/IEC 23008-12, AVIF 1.1). */
const PICTURE_BRANDS = /^(?:avif|avis|heic|heix|heim|heis|hevc|mif1|msf1)$/;

/** Whether it is worth a look, by the marks at its beginning. */
async function mayBeFilm(path: string): Promise<boolean> {
  const file = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(START_BYTES), 0, START_BYTES, 0);
    const start = buffer.subarray(0, bytesRead);
    return isIsoFilm(start) || isMarked(start) || isMpegAudio(start);
  } catch {
    return false;
  } finally {
    await file.close();
  }
}

/** Letters of plain text begin here: where a size or a version stands, it is smaller in a file of this kind. */
const LEAST_LETTER = 0x20;

/** Boxes of the ISO base media format, each behind its size (ISO/IEC 14496-12, 4.2), and of QuickTime, which old cameras begin with. */
function isIsoFilm(start: Buffer): boolean {
  if ((start[0] ?? LEAST_LETTER) >= LEAST_LETTER) return false;
  const box = start.toString('latin1', 4, 8);
  if (box === 'ftyp') return !PICTURE_BRANDS.test(start.toString('latin1', 8, 12));
  return /^(?:moov|mdat|wide|free|skip)$/.test(box);
}

/** Matroska (RFC 9559), Ogg (RFC 3533), FLAC (RFC 9639), MP3 behind an ID3 tag, and WAVE. */
function isMarked(start: Buffer): boolean {
  const text = start.toString('latin1', 0, 12);
  if (start.length >= 4 && start.readUInt32BE(0) === 0x1a45dfa3) return true;
  const hasVersion = (start[text.startsWith('ID3') ? 3 : 4] ?? LEAST_LETTER) % 0x80 < LEAST_LETTER;
  if (/^(?:OggS|fLaC|ID3)/.test(text)) return hasVersion;
  return text.startsWith('RIFF') && text.slice(8, 12) === 'WAVE';
}

/** A frame of MPEG audio, layer 3 (ISO/IEC 11172-3, 2.4.2.3), with values that there are. */
function isMpegAudio(start: Buffer): boolean {
  const [first = 0, second = 0, third = 0] = start;
  const isSynced = first === 0xff && (second & 0xe0) === 0xe0;
  return isSynced && (second & 0x06) === 0x02 && (third & 0xf0) !== 0xf0 && (third & 0x0c) !== 0x0c;
}

async function stillOf(dataFolder: string, path: string, name: string, facts: FilmFacts): Promise<Buffer> {
  const folder = join(dataFolder, 'uploads');
  await mkdir(folder, { recursive: true });
  const to = join(folder, `still-${randomUUID()}.png`);
  try {
    await runProgram(
      'ffmpeg',
      ['-nostdin', '-v', 'error', ...drawing(path, facts), '-frames:v', '1', '-y', to],
      STILL,
    );
    return await readFile(to);
  } catch (cause) {
    throw new HttpProblem(
      422,
      `${shortName(name)} is a ${filmKind(facts)} whose pictures or sound cannot be read. Nothing was kept of it.`,
      {},
      { cause },
    );
  } finally {
    await rm(to, { force: true });
  }
}

function drawing(path: string, film: FilmFacts): readonly string[] {
  if (film.picture) {
    const plain = { film, recipe: WHOLE_FILM };
    const at = (stillMoment(plain) / 1000).toFixed(3);
    return ['-ss', at, ...SAFE, '-i', path, '-an', '-vf', stillFilter(plain)];
  }
  const { width, height } = DRAWN;
  const wave = `[0:a]aformat=channel_layouts=mono,showwavespic=s=${width}x${height}:colors=0x0f5c4d:scale=sqrt[w];color=white:s=${width}x${height}[b];[b][w]overlay=format=auto,format=rgb24`;
  return [...SAFE, '-i', path, '-filter_complex', wave];
}
