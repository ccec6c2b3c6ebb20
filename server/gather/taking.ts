import { randomUUID } from 'node:crypto';
import { mkdir, open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { and, asc, desc, eq, getViewSelectedFields, gt, isNull } from 'drizzle-orm';
import * as v from 'valibot';
import type { FoundPicture, Gathering, Take, Taking } from '#api/gather.ts';
import type { Person } from '#api/people.ts';
import { folderPath } from '#core/naming/folders.ts';
import type { NamingRules } from '#core/naming/pattern.ts';
import { isLicenceId, isOfCopies } from '#core/rights/licences.ts';
import { eachAtMost } from '../at-once.ts';
import type { Context } from '../context.ts';
import { held, importItems, jobs, provenance } from '../db/schema.ts';
import { addJob, type JobRow, presentJob } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { retry } from '../outbound/retry.ts';
import { putOnTray } from '../pages/tray.ts';
import { HttpProblem, isNoSpace, notFound } from '../problem.ts';
import { presentAssets } from '../shelf/present.ts';
import type { Origin } from './incoming.ts';
import { isInline, saveInline } from './inline-files.ts';
import { isPicture } from './read-address.ts';
import { openSeal } from './seal.ts';
import { sourceName } from './sources/sources.ts';
import { assertSeenBy, type TakenIn, takeIn } from './take-in.ts';

export const GATHER = 'gather';

const InputSchema = v.object({
  pageId: v.nullable(v.string()),
  wantId: v.nullable(v.string()),
  folder: v.string(),
  licence: v.nullable(v.string()),
});

const AT_ONCE = 3;
const FETCH_MILLIS = 5 * 60 * 1000;
const PATIENCE = { tries: 4, firstWaitMillis: 1000, longestWaitMillis: 30_000 };

/** Orders found pictures to be taken: a job whose single steps are rows, so that each is done once. */
export async function orderTaking(
  context: Context,
  take: Take,
  personId: string,
  now: Date,
  jobId: string = randomUUID(),
): Promise<string> {
  const pictures = take.seals.map((seal) => openSeal(context, seal));
  const [first] = pictures;
  const title = pictures.length === 1 ? (first?.fileName ?? 'A picture') : `${pictures.length} pictures`;
  const input = {
    pageId: take.pageId,
    wantId: take.wantId,
    folder: folderPath(take.folder),
    licence: take.licence,
  };
  await context.db.transaction(async (tx) => {
    await addJob({ db: tx }, { id: jobId, kind: GATHER, title: `Gathering ${title}`, input, personId }, now);
    await tx
      .insert(importItems)
      .ignore()
      .values(pictures.map((picture, ordinal) => ({ jobId, ordinal, picture, state: 'waiting' })));
  });
  return jobId;
}

/** Works a gathering: fetches each picture that is not in yet, takes it in, and puts it on the tray. */
export async function gather(context: Context, job: JobRow, tools: JobTools): Promise<JobResult> {
  const input = v.parse(InputSchema, job.input);
  const rows = await context.db
    .select()
    .from(importItems)
    .where(eq(importItems.jobId, job.id))
    .orderBy(asc(importItems.ordinal));
  let done = rows.filter(({ state }) => state !== 'waiting').length;
  await tools.report(done, rows.length, 'Gathering');
  const waiting = rows.filter(({ state }) => state === 'waiting');
  const each = eachAtMost(AT_ONCE, waiting, async (row) => {
    if (tools.signal.aborted) return;
    const outcome = await takeOne(context, row.picture, input, job.createdBy, tools.signal);
    if (tools.signal.aborted && outcome.state !== 'in') return;
    if (outcome.assetId && input.pageId) {
      const wantId = row.ordinal === 0 ? input.wantId : null;
      await putOnTray(context, input.pageId, [outcome.assetId], wantId, job.createdBy, new Date());
    }
    await context.db
      .update(importItems)
      .set(outcome)
      .where(and(eq(importItems.jobId, job.id), eq(importItems.ordinal, row.ordinal)));
    done += 1;
    await tools.report(done, rows.length, 'Gathering');
  });
  try {
    await each;
  } catch (error) {
    if (!isNoSpace(error)) throw error;
    return {
      state: 'stopped',
      words: `There is no room left to store files. ${done} of ${rows.length} are done; make room, then go on.`,
    };
  }
  await tools.report(done, rows.length, 'Gathering');
  return { words: await sayDone(context, job.id) };
}

interface Outcome {
  readonly state: 'in' | 'refused';
  readonly sentence: string;
  readonly assetId: string | null;
  readonly isNew: boolean | null;
}

type Input = v.InferOutput<typeof InputSchema> & { readonly namedBy?: NamingRules };

async function takeOne(
  context: Context,
  picture: FoundPicture,
  input: Input,
  personId: string,
  signal: AbortSignal,
): Promise<Outcome> {
  try {
    const unchanged = await heldUnchanged(context, picture);
    if (unchanged) await assertSeenBy(context, unchanged, personId);
    if (unchanged) return sayIn(unchanged, false, 'Held already and unchanged, so it was not fetched again');
    const { row, isNew } = await fetchAndTake(context, picture, input, personId, signal);
    return sayIn(row, isNew, isNew ? 'Taken in' : 'Already on the shelf; that one is used');
  } catch (error) {
    if (error instanceof OutboundProblem || error instanceof HttpProblem)
      return { state: 'refused', sentence: error.message.slice(0, 500), assetId: null, isNew: null };
    throw error;
  }
}

function sayIn(row: TakenIn['row'], isNew: boolean, words: string): Outcome {
  return {
    state: 'in',
    sentence: `${words}: ${row.stem}.${row.extension}.`,
    assetId: row.id,
    isNew,
  };
}

/** The piece that came from there before, when the source says that its file is the same still. */
async function heldUnchanged(context: Context, { source, key, stamp }: FoundPicture) {
  // Pages of the web say nothing of whether a file is the same as it was.
  if (source === 'web') return undefined;
  const [found] = await context.db
    .select({ asset: getViewSelectedFields(held) })
    .from(provenance)
    .innerJoin(held, eq(held.id, provenance.assetId))
    .where(
      and(
        eq(provenance.sourceId, source),
        eq(provenance.sourceKey, key),
        eq(provenance.stamp, stamp),
        isNull(held.deletedAt),
      ),
    )
    .limit(1);
  return found?.asset;
}

/** Fetches the file of a picture and takes it in. Throws OutboundProblem, or an HttpProblem for what cannot be taken. */
export async function fetchAndTake(
  context: Context,
  picture: FoundPicture,
  input: Input,
  personId: string,
  signal: AbortSignal,
): Promise<TakenIn> {
  const uploads = join(context.config.dataFolder, 'uploads');
  await mkdir(uploads, { recursive: true });
  const path = join(uploads, `gather-${randomUUID()}`);
  try {
    const taken = await fetchTo(context, picture, path, signal);
    const name = taken.fileName || 'picture';
    const origin = originOf(taken, input);
    const { folder, pageId, namedBy } = input;
    const incoming = { path, name, personId, folder, pageId, origin, ...(namedBy ? { namedBy } : {}) };
    return await takeIn(context, incoming, new Date());
  } finally {
    await rm(path, { force: true });
  }
}

/** Fetches the file of a picture, and answers the picture whose file it is. */
async function fetchTo(
  context: Context,
  picture: FoundPicture,
  path: string,
  signal: AbortSignal,
): Promise<FoundPicture> {
  if (isInline(picture.address)) {
    await saveInline(context, picture.address, path);
    return picture;
  }
  const save = (address: string) =>
    retry(PATIENCE, signal, () =>
      context.outbound.save(address, path, {
        limits: { bytes: context.config.uploadLimitBytes, millis: FETCH_MILLIS },
        accept: 'image/*,*/*;q=0.5',
        ...(picture.pageAddress ? { referrer: picture.pageAddress } : {}),
        signal,
      }),
    );
  await save(picture.address);
  const { source, preview, address } = picture;
  if (source !== 'web' || preview === address || preview === '' || (await isPictureFile(path)))
    return picture;
  // A page that is called like a picture: the picture is what was shown.
  await save(preview);
  return { ...picture, address: preview };
}

async function isPictureFile(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(8192), 0, 8192, 0);
    return await isPicture(buffer.subarray(0, bytesRead));
  } finally {
    await file.close();
  }
}

function originOf(picture: FoundPicture, { licence }: Input): Origin {
  const isFromWeb = picture.source === 'web';
  const decided = licence && isLicenceId(licence) && isOfCopies(licence) ? licence : null;
  return {
    way: isFromWeb ? 'address' : 'source',
    sourceId: isFromWeb ? null : picture.source,
    sourceKey: picture.key,
    stamp: picture.stamp,
    address: isInline(picture.address) ? null : picture.address,
    pageAddress: picture.pageAddress || null,
    said: picture.statements,
    decidedLicence: decided,
  };
}

async function sayDone(context: Context, jobId: string): Promise<string> {
  const rows = await context.db
    .select({ state: importItems.state })
    .from(importItems)
    .where(eq(importItems.jobId, jobId));
  const came = rows.filter(({ state }) => state === 'in').length;
  const refused = rows.filter(({ state }) => state === 'refused').length;
  return refused === 0 ? `${came} of ${rows.length} in` : `${came} in, ${refused} could not be taken`;
}

/** A gathering with what became of each of its pictures. */
export async function readGathering(context: Context, jobId: string, person: Person): Promise<Gathering> {
  const [row] = await context.db.select().from(jobs).where(eq(jobs.id, jobId));
  if (!row || row.kind !== GATHER || row.createdBy !== person.id) throw notFound('This gathering');
  const [gathering] = await present(context, [row], person);
  if (!gathering) throw notFound('This gathering');
  return gathering;
}

const SHOWN_MILLIS = 60 * 60 * 1000;

/** The person's gatherings of the last hour, and all that still run. */
export async function recentGatherings(context: Context, person: Person, now: Date): Promise<Gathering[]> {
  const rows = await context.db
    .select()
    .from(jobs)
    .where(
      and(
        eq(jobs.kind, GATHER),
        eq(jobs.createdBy, person.id),
        gt(jobs.createdAt, new Date(now.getTime() - SHOWN_MILLIS)),
      ),
    )
    .orderBy(desc(jobs.createdAt))
    .limit(20);
  return present(context, rows, person);
}

async function present(context: Context, rows: readonly JobRow[], person: Person): Promise<Gathering[]> {
  return Promise.all(
    rows.map(async (row) => {
      const steps = await context.db
        .select()
        .from(importItems)
        .leftJoin(held, eq(held.id, importItems.assetId))
        .where(eq(importItems.jobId, row.id))
        .orderBy(asc(importItems.ordinal));
      const shown = await presentAssets(
        context,
        steps.flatMap(({ held: asset }) => asset ?? []),
        person,
      );
      const job = presentJob(row);
      return {
        jobId: row.id,
        state: job.state,
        words: job.words,
        pageId: v.parse(InputSchema, row.input).pageId,
        takings: steps.map(({ import_items: step }): Taking => {
          const hasEnded = job.state === 'stopped' || job.state === 'failed';
          const state = step.state === 'in' || step.state === 'refused' ? step.state : 'waiting';
          return {
            ordinal: step.ordinal,
            name: `${step.picture.fileName}, ${sourceName(step.picture.source)}`,
            state: state === 'waiting' && hasEnded ? 'stopped' : state,
            sentence: step.sentence,
            asset: shown.find(({ id }) => id === step.assetId) ?? null,
            isNew: step.isNew ?? false,
          };
        }),
      };
    }),
  );
}
