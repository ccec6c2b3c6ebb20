import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { VISIBILITIES } from '#api/films.ts';
import type { Person } from '#api/people.ts';
import { readPasted } from '#core/embed/reading.ts';
import { factsOut } from '#core/film/made.ts';
import { sayBytes } from '#core/media/weight.ts';
import type { Context } from '../context.ts';
import { assets, people } from '../db/schema.ts';
import { readHosts } from '../embeds/hosts.ts';
import { keepEmbed } from '../embeds/keep.ts';
import { addJob, type TakenJob } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { presentPerson } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { changeAsset, findAsset } from '../shelf/change.ts';
import { pieceOf } from '../shelf/present.ts';
import { replaceEverywhere } from '../shelf/replace.ts';
import { captionFiles } from './captions.ts';
import { playedFiles } from './files-out.ts';
import { type TakingHost, takingHost, tokenAt } from './film-host.ts';
import { saidOfBoth } from './said-of-both.ts';
import { ownFilm } from './work.ts';

/** A film goes to the film host, and what plays there takes its place on every page. */
export const MOVE_FILM = 'film-move';

const InputSchema = v.object({
  assetId: v.string(),
  host: v.string(),
  visibility: v.picklist(VISIBILITIES),
});
type Input = v.InferOutput<typeof InputSchema>;

/** Orders that a film is moved to a host, which has to know the house already. */
export async function orderMove(context: Context, input: Input, person: Person, now: Date): Promise<string> {
  const row = await ownFilm(context, input.assetId, person);
  const host = await takingHost(context, input.host);
  if ((await tokenAt(context, host)) === null)
    throw new HttpProblem(
      409,
      `${host.name} does not know the house yet: the site owner gives its token first.`,
    );
  if (playedFiles(row).length === 0)
    throw new HttpProblem(
      409,
      'This film is not made yet as it is to be. Wait until it is, and move it then.',
    );
  const title = row.label.title || row.stem;
  return addJob(context, { kind: MOVE_FILM, title, input, personId: person.id }, now);
}

const STEPS = 4;
const ANSWER = { bytes: 1_000_000, millis: 30_000 };
/** Two gigabytes on a slow line of 5 Mbit/s take an hour. */
const FILE = { bytes: 1_000_000, millis: 3 * 60 * 60 * 1000 };

const AnswerSchema = v.object({ page: v.string(), upload: v.string() });

/** Moves a film: asked again after it was killed, the host gives the same place for the same order, and nothing is there twice. */
export async function moveFilm(
  context: Context,
  job: TakenJob,
  { report, signal }: JobTools,
): Promise<JobResult> {
  const { assetId, host: hostId, visibility } = v.parse(InputSchema, job.input);
  const [by] = await context.db.select().from(people).where(eq(people.id, job.createdBy));
  if (!by) throw new HttpProblem(404, 'Whoever ordered it is not of the house any more. Nothing was sent.');
  const person = presentPerson(by);
  const host = await takingHost(context, hostId);
  // Killed between the last step and its word for it, the order is worked once more.
  if (await isPutAway(context, assetId))
    return { words: 'It is in the bin already: it was moved, or thrown away meanwhile.' };
  const row = await ownFilm(context, assetId, person);
  const going = new Going(context, host, (await tokenAt(context, host)) ?? '', signal);
  const title = row.label.title || row.stem;
  await report(0, STEPS, `Asking ${host.name} for a place`);
  const description = row.label.extendedDescription;
  const place = await going.place({ title, description, visibility }, job.id);
  const files = playedFiles(row);
  const file = files.find(({ name }) => /\.(?:mp4|m4a)$/.test(name)) ?? files[0];
  if (!file || !('key' in file.from)) throw new HttpProblem(409, 'This film is not made yet as it is to be.');
  const { bytes } = factsOut(row.stem, row.extension, filmPiece(row));
  await report(1, STEPS, `Sending ${file.name}, ${sayBytes(bytes)}`);
  await going.put(`${place.upload}/file`, {
    type: file.mime,
    body: await context.storage.read(file.from.key),
  });
  await report(2, STEPS, 'Sending its captions');
  for (const { name, text } of await captionFiles(context, row)) {
    const language = /\.([a-z0-9-]+)\.vtt$/.exec(name)?.[1] ?? '';
    if (name.endsWith('.chapters.vtt')) continue;
    await going.put(`${place.upload}/captions/${language}`, {
      type: 'text/vtt',
      body: Buffer.from(text, 'utf8'),
    });
  }
  await report(3, STEPS, 'Putting it in its place on every page');
  const embedId = await takePlace(context, { assetId, page: place.page }, person, signal);
  const { pages } = await replaceEverywhere(context, assetId, embedId, person, new Date());
  const on = pages === 1 ? 'one page' : `${pages} pages`;
  return {
    words: `It plays at ${host.name} now, on ${on}. The file is in the bin, and can be brought back.`,
  };
}

async function isPutAway({ db }: Context, assetId: string): Promise<boolean> {
  const [row] = await db.select({ deletedAt: assets.deletedAt }).from(assets).where(eq(assets.id, assetId));
  return row !== undefined && row.deletedAt !== null;
}

function filmPiece(row: Parameters<typeof pieceOf>[0]) {
  const piece = pieceOf(row);
  if (piece.kind !== 'film') throw new HttpProblem(409, 'It is no film any more.');
  return piece;
}

/** What plays at the host as a piece of its own, with the rights and the words of the film. */
async function takePlace(
  context: Context,
  { assetId, page }: { readonly assetId: string; readonly page: string },
  person: Person,
  signal: AbortSignal,
): Promise<string> {
  const hosts = await readHosts(context);
  const [read] = readPasted(page, hosts).embeds;
  if (!read)
    throw new HttpProblem(
      502,
      'The host named a page that is none of a film of its own. The film stays here too.',
    );
  const film = await findAsset(context, assetId);
  const { row } = await keepEmbed(
    context,
    read.embed,
    { folder: film.folder, person, now: new Date() },
    signal,
  );
  await changeAsset(context, row.id, row.version, { label: saidOfBoth(film.label) }, person, new Date());
  return row.id;
}

interface Wanted {
  readonly title: string;
  readonly description: string;
  readonly visibility: string;
}

/** What is told to a film host; where it refuses, in whose words. */
class Going {
  constructor(
    readonly context: Context,
    readonly host: TakingHost,
    readonly token: string,
    readonly signal: AbortSignal,
  ) {}

  /** A place for a film: where it is watched, and where its files are put. The same order gets the same place. */
  async place(wanted: Wanted, order: string): Promise<v.InferOutput<typeof AnswerSchema>> {
    const { upload, name } = this.host;
    const answer = await this.#tell(upload, {
      method: 'POST',
      type: 'application/json',
      body: Buffer.from(JSON.stringify(wanted)),
      headers: { 'Idempotency-Key': order },
    });
    const read = v.safeParse(AnswerSchema, maybeJson(answer.bytes));
    const isThere = read.success && [read.output.page, read.output.upload].every((one) => isAt(one, upload));
    if (!isThere)
      throw new HttpProblem(502, `${name} answered in a way that is not understood. Nothing was sent.`);
    return read.output;
  }

  async put(
    address: string,
    { type, body }: { readonly type: string; readonly body: Buffer },
  ): Promise<void> {
    await this.#tell(address, { method: 'PUT', type, body, headers: {} });
  }

  async #tell(
    address: string,
    told: {
      readonly method: 'POST' | 'PUT';
      readonly type: string;
      readonly body: Buffer;
      readonly headers: Readonly<Record<string, string>>;
    },
  ) {
    const { name } = this.host;
    const limits = told.method === 'PUT' ? FILE : ANSWER;
    const answer = await this.context.outbound
      .tell(address, { ...told, token: this.token }, { limits, signal: this.signal })
      .catch((error: unknown) => {
        throw error instanceof OutboundProblem && !this.signal.aborted
          ? new HttpProblem(502, `${name}: ${error.message} The film stays here.`, {}, { cause: error })
          : error;
      });
    if (answer.status < 300) return answer;
    throw new HttpProblem(502, `${name} ${sayStatus(answer.status)} The film stays here.`);
  }
}

function sayStatus(status: number): string {
  if (status === 401 || status === 403) return 'does not know the token of the house any more.';
  if (status === 413 || status === 507) return 'has no room for a file of this size.';
  return `answered with ${status}.`;
}

/** A place of the same host: what was told to one is told to no other. */
const isAt = (address: string, upload: string): boolean =>
  URL.canParse(address) && new URL(address).origin === new URL(upload).origin;

function maybeJson(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    return null;
  }
}
