import { randomUUID } from 'node:crypto';
import { rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { filmSizes, type MadeFormat, madeName, type StoredMade } from '#core/film/made.ts';
import { codecsOf } from '#core/film/probe.ts';
import { madeSeconds } from '#core/film/recipe.ts';
import type { Size } from '#core/media/dimensions.ts';
import type { Context } from '../context.ts';
import { films, held } from '../db/schema.ts';
import { runProgram } from '../foreign/program.ts';
import { pause } from '../jobs/pause.ts';
import type { TakenJob } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { HttpProblem } from '../problem.ts';
import { readTargets } from '../rules/store.ts';
import { filmOf } from '../shelf/own-file.ts';
import type { AssetRow } from '../shelf/present.ts';
import { originalKey } from '../storage/storage.ts';
import { workFolder } from '../work-folder.ts';
import { noteLanguages } from './captions.ts';
import { encodeArgs } from './encode.ts';
import type { FilmSource } from './graph.ts';
import { qualityFor } from './likeness.ts';
import { levelling, listen } from './listen.ts';
import { ProgramFailed, runLong } from './long-program.ts';
import { allMade, changeMade, madeKey, recipeName, recipeOf } from './made-store.ts';
import { keepStill } from './still.ts';

const InputSchema = v.object({ assetId: v.string(), recipe: v.string() });

/** While somebody moves an edge nothing is begun that the next move makes useless. */
const SETTLE_MILLIS = 1500;
const MEMORY = 12_000_000_000;
/** Making takes as long as playing or some times longer; a film of twelve hours gets days. */
const SECONDS_EACH = 60;
const LEAST_SECONDS = 3600;

/** Makes what is not made yet of a film. What is made stays where it is stopped or killed, and it goes on from there. */
export async function makeFilm(context: Context, job: TakenJob, tools: JobTools): Promise<JobResult> {
  const { assetId, recipe } = v.parse(InputSchema, job.input);
  await pause(SETTLE_MILLIS, tools.signal);
  const row = await rowOf(context, assetId);
  if (!row || recipeName(recipeOf(row)) !== recipe) return { words: 'It was changed again meanwhile.' };
  const film = filmOf(row);
  const { filmSha256 } = row;
  if (!film || filmSha256 === null) return { words: 'It is no film any more.' };
  const folder = await workFolder(context);
  try {
    return await context.storage.withFile(originalKey(filmSha256), (path) =>
      made(
        context,
        { row, sha256: filmSha256, source: { path, film, recipe: recipeOf(row) }, folder },
        tools,
      ),
    );
  } catch (error) {
    if (!(error instanceof ProgramFailed)) throw error;
    throw new HttpProblem(
      422,
      'Its pictures or its sound could not be read to the end. Nothing half-made was kept; the file as it came is still there.',
      {},
      { cause: error },
    );
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

interface Making {
  readonly row: AssetRow;
  readonly sha256: string;
  readonly source: FilmSource;
  readonly folder: string;
}

async function made(context: Context, making: Making, tools: JobTools): Promise<JobResult> {
  const { row, source } = making;
  await keepStill(context, row, source, tools);
  const targets = (await readTargets(context)).map(({ rules }) => rules);
  const columns = targets.map(({ column }) => column);
  const wanted = wantedFiles(source, columns).filter(
    (file) => !allMade(row).some((one) => one.recipe === recipeName(source.recipe) && isSame(one, file)),
  );
  await tools.report(0, wanted.length * PARTS, 'Listening to it');
  await keepHeard(context, row, source, tools);
  if (wanted.length === 0) return { words: 'It is made for the web.' };
  const level = await levelling(source, tools.signal);
  const likeness = Math.max(...targets.map(({ likeness: least }) => least)) / 1000;
  const shown = Math.max(...columns);
  const crfs = new Map<MadeFormat, number>();
  for (const [at, file] of wanted.entries()) {
    const name = madeName(row.stem, file.format, file.size.width);
    const tell = (part: number, words: string) =>
      tools.report(Math.floor((at + part) * PARTS), wanted.length * PARTS, words);
    await tell(0, `Looking how ${name} is made best`);
    const { format, size } = file;
    // A narrower film is as like the untouched one at the quality of the widest, or more.
    const crf =
      crfs.get(format) ??
      (await crfFor(source, file, { likeness, shown, folder: making.folder, signal: tools.signal }));
    crfs.set(format, crf);
    await makeOne(context, making, { format, size, crf, level }, { name, tell, signal: tools.signal });
  }
  return { words: `It is made for the web: ${wanted.length} files.` };
}

/** In so many parts the making of a file is told of. */
const PARTS = 100;

interface WantedFile {
  readonly format: MadeFormat;
  readonly size: Size;
}

const isSame = (one: StoredMade, { format, size }: WantedFile): boolean =>
  one.format === format && one.width === size.width;

/** MP4 first: with it the film plays everywhere. */
function wantedFiles({ film, recipe }: FilmSource, columns: readonly number[]): readonly WantedFile[] {
  const sizes = filmSizes({ film, recipe }, columns);
  const formats: readonly MadeFormat[] = film.picture ? ['mp4', 'webm'] : ['m4a', 'webm'];
  return formats.flatMap((format) => sizes.map((size) => ({ format, size })));
}

interface Judged {
  readonly likeness: number;
  readonly shown: number;
  readonly folder: string;
  readonly signal: AbortSignal;
}

async function crfFor(source: FilmSource, { format, size }: WantedFile, judged: Judged): Promise<number> {
  if (!source.film.picture || format === 'm4a') return 0;
  return qualityFor(source, format, { ...judged, size });
}

interface Telling {
  readonly name: string;
  readonly tell: (part: number, words: string) => Promise<void>;
  readonly signal: AbortSignal;
}

const TELL_MILLIS = 500;

async function makeOne(
  context: Context,
  { row, sha256, source, folder }: Making,
  encoding: Parameters<typeof encodeArgs>[1],
  { name, tell, signal }: Telling,
): Promise<void> {
  const { format, size } = encoding;
  const to = join(folder, randomUUID());
  const seconds = madeSeconds(source.recipe, source.film.seconds);
  const progress = new Progress(seconds);
  const ending = new AbortController();
  const telling = tellNowAndThen(
    () => tell(progress.part, `Making ${name}: ${Math.floor(progress.part * 100)} %`),
    ending,
  );
  try {
    await runLong({
      program: 'ffmpeg',
      args: encodeArgs(source, encoding, to),
      bytes: MEMORY,
      seconds: LEAST_SECONDS + seconds * SECONDS_EACH,
      signal: AbortSignal.any([signal, ending.signal]),
      onOut: (bytes) => progress.add(bytes),
    });
  } finally {
    telling.stop();
    await telling.ended;
  }
  const file = {
    ...(await factsOfMade(to)),
    format,
    width: size.width,
    height: size.height,
    recipe: recipeName(source.recipe),
  };
  await context.storage.take(madeKey(sha256, file), to);
  await changeMade(context, row.id, (all) => [
    ...all.filter((one) => one.recipe !== file.recipe || !isSame(one, encoding)),
    file,
  ]);
  await rm(to, { force: true });
}

/** How far a file is, as ffmpeg tells it (`-progress`). */
class Progress {
  part = 0;
  readonly #seconds: number;
  constructor(seconds: number) {
    this.#seconds = seconds;
  }
  add(bytes: Buffer): void {
    const at = /out_time_us=(\d+)/.exec(bytes.toString('latin1'))?.[1];
    if (at !== undefined) this.part = Math.min(1, Number(at) / 1e6 / Math.max(0.1, this.#seconds));
  }
}

/** Tells again and again until it is stopped; who is told may want it to end, and then it ends. */
function tellNowAndThen(tell: () => Promise<void>, ending: AbortController) {
  const stopped = new AbortController();
  const run = async () => {
    while (!stopped.signal.aborted) {
      await tell().catch((error: unknown) => ending.abort(error));
      await pause(TELL_MILLIS, stopped.signal);
    }
  };
  return { ended: run(), stop: () => stopped.abort() };
}

async function factsOfMade(path: string): Promise<{ readonly bytes: number; readonly codecs: string }> {
  const said = await runProgram(
    'ffprobe',
    ['-v', 'error', '-print_format', 'json', '-show_format', '-show_streams', path],
    { millis: 15_000, bytes: 2_000_000_000, answerBytes: 500_000 },
  );
  const codecs = codecsOf(JSON.parse(said));
  if (codecs === null) throw new ProgramFailed('ffmpeg', `What was made is not what was wanted: ${said}`);
  return { bytes: (await stat(path)).size, codecs };
}

async function keepHeard(
  context: Context,
  row: AssetRow,
  source: FilmSource,
  { signal }: JobTools,
): Promise<void> {
  const [known] = await context.db
    .select({ heard: films.heard })
    .from(films)
    .where(eq(films.assetId, row.id));
  if (known?.heard) return;
  const listened = await listen(source, signal);
  if (!listened) return;
  await context.db.transaction(async (tx) => {
    await tx.update(films).set(listened).where(eq(films.assetId, row.id));
    await noteLanguages(tx, row.id);
  });
}

async function rowOf({ db }: Context, assetId: string): Promise<AssetRow | undefined> {
  const [row] = await db.select().from(held).where(eq(held.id, assetId));
  return row;
}
