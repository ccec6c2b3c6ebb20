import { randomUUID } from 'node:crypto';
import { and, asc, count, desc, eq, gt, inArray, isNotNull, or } from 'drizzle-orm';
import * as v from 'valibot';
import type { Reader } from '#api/people.ts';
import type { PreviewRow, Run, RunPreview, RunStep, RunSummary } from '#api/runs.ts';
import { folderPath } from '#core/naming/folders.ts';
import type { RunOrder } from '#core/run/order.ts';
import type { RunRow } from '#core/run/plan.ts';
import { isNameFault } from '#core/run/warning.ts';
import type { Context } from '../context.ts';
import { held, jobs, runSteps } from '../db/schema.ts';
import { throwCuts } from '../imaging/made-cuts.ts';
import { addJob, goOnWithJob, type JobRow, presentJob } from '../jobs/queue.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { missingFolders, removeEmptyFolders } from '../shelf/folders.ts';
import { type AssetRow, preparedSize, thumbAddress } from '../shelf/present.ts';
import { seenBy } from '../shelf/seen.ts';
import { RunInputSchema } from './input.ts';
import { plan } from './planning.ts';
import { type StepRow, takeBackStep } from './step.ts';
import { RUN } from './work.ts';

/** What a run would do, before anything is done. */
export async function previewRun(context: Context, order: RunOrder, reader: Reader): Promise<RunPreview> {
  const planned = await plan(context, order, reader);
  return {
    rows: await shownRows(context, planned.assets, planned.rows),
    gone: new Set(order.pieces).size - planned.assets.length,
    subjects: [...planned.subjects].map(([from, pieces]) => ({ from, pieces })),
    seen: planned.seen,
  };
}

async function shownRows(
  context: Context,
  found: readonly AssetRow[],
  rows: readonly RunRow[],
): Promise<PreviewRow[]> {
  const shown = new Map(found.map((asset) => [asset.id, asset]));
  return rows.map((row) => {
    const asset = shown.get(row.assetId);
    return {
      ...(structuredClone(row) as PreviewRow),
      thumb: asset ? thumbAddress(context, asset) : '',
      originalName: asset?.originalName ?? '',
      ...(asset ? preparedSize(asset) : { width: 0, height: 0 }),
      bytes: asset?.bytes ?? 0,
    };
  });
}

/** Begins a run on what was seen of it. When anything changed since, nothing is begun. */
export async function beginRun(
  context: Context,
  order: RunOrder,
  seen: string,
  reader: Reader,
  now: Date,
  jobId: string = randomUUID(),
): Promise<string> {
  // The very run ordered again after a lost line is under way, and may have changed what was seen already.
  const [known] = await context.db.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId));
  if (known) return jobId;
  const planned = await plan(context, order, reader);
  if (planned.seen !== seen)
    throw new HttpProblem(
      409,
      'Something changed since you looked: a piece, a name, or the House rules. Nothing was begun; look at the rows again.',
    );
  const parts = planned.rows.filter(({ leftOut }) => leftOut === null).length;
  if (parts === 0) throw new HttpProblem(422, 'Nothing would change, so there is nothing to run.');
  // One whose wrong name leaves it as it is would take no part, and nobody would hear why.
  const faulty = planned.rows.find(
    ({ assetId, leftOut, warnings }) =>
      !order.rows[assetId]?.leftOut && leftOut !== 'comp' && warnings.some(isNameFault),
  );
  if (faulty)
    throw new HttpProblem(
      422,
      `The name that was written for ${faulty.before.stem} is none. Nothing was begun; mend it in its row, or leave it out.`,
    );
  const newFolders = order.folder === null ? [] : await missingFolders(context, folderPath(order.folder));
  await context.db.transaction(async (tx) => {
    const title = `A run over ${parts === 1 ? '1 piece' : `${parts} pieces`}`;
    await addJob(
      { db: tx },
      { id: jobId, kind: RUN, title, input: { order, newFolders }, personId: reader.id },
      now,
    );
    await tx
      .insert(runSteps)
      .ignore()
      .values(
        planned.rows.map((row, ordinal) => ({
          jobId,
          ordinal,
          assetId: row.assetId,
          row,
          version: planned.assets[ordinal]?.version ?? 0,
          state: row.leftOut === null ? 'waiting' : 'out',
        })),
      );
  });
  return jobId;
}

/** Lets a run go on that was stopped, failed, or was taken back. */
export async function goOnWithRun(context: Context, jobId: string, personId: string): Promise<void> {
  const job = await runJob(context, jobId, personId);
  if (isUnderWay(job)) return;
  await context.db
    .update(runSteps)
    .set({ state: 'waiting', sentence: '', madeBytes: null, endedAt: null })
    .where(and(eq(runSteps.jobId, jobId), eq(runSteps.state, 'undone')));
  await goOnWithJob(context, jobId);
}

/** Takes a whole run back at once: what it changed, and the files that nothing else needs. */
export async function takeRunBack(
  context: Context,
  jobId: string,
  personId: string,
  now: Date,
): Promise<void> {
  const job = await runJob(context, jobId, personId);
  if (isUnderWay(job))
    throw new HttpProblem(409, 'It is still under way. Stop it first; what is done stays until then.');
  const { order, newFolders } = v.parse(RunInputSchema, job.input);
  const done = await context.db
    .select()
    .from(runSteps)
    .where(and(eq(runSteps.jobId, jobId), eq(runSteps.state, 'done')))
    .orderBy(desc(runSteps.ordinal));
  await context.db.transaction(async (tx) => {
    for (const step of done)
      if (order.into === 'shelf') await takeBackStep(tx, step, personId, now);
      else await tx.update(runSteps).set({ state: 'undone' }).where(sameStep(step));
    await removeEmptyFolders(tx, newFolders);
  });
  for (const step of done) await throwStepFiles(context, step);
}

const sameStep = ({ jobId, ordinal }: StepRow) =>
  and(eq(runSteps.jobId, jobId), eq(runSteps.ordinal, ordinal));

async function throwStepFiles(context: Context, step: StepRow): Promise<void> {
  const [asset] = await context.db.select().from(held).where(eq(held.id, step.assetId));
  if (!asset) return;
  const isOfRun = (cut: { recipe: string; widthPx: number; format: string; quality: number }) =>
    step.row.files.some(
      (file) =>
        file.recipe === cut.recipe &&
        file.width === cut.widthPx &&
        file.format === cut.format &&
        file.quality === cut.quality,
    );
  await throwCuts(context, asset, isOfRun);
}

const isUnderWay = ({ state }: Pick<JobRow, 'state'>) => state === 'waiting' || state === 'running';

export async function runJob(context: Context, jobId: string, personId: string): Promise<JobRow> {
  const [job] = await context.db.select().from(jobs).where(eq(jobs.id, jobId));
  if (!job || job.kind !== RUN || job.createdBy !== personId) throw notFound('This run');
  return job;
}

const SHOWN_MILLIS = 30 * 24 * 60 * 60 * 1000;
const SHOWN = 30;

/** A person's runs of the last month, newest first. */
export async function recentRuns(context: Context, personId: string, now: Date): Promise<RunSummary[]> {
  const rows = await context.db
    .select()
    .from(jobs)
    .where(
      and(
        eq(jobs.kind, RUN),
        eq(jobs.createdBy, personId),
        or(
          gt(jobs.createdAt, new Date(now.getTime() - SHOWN_MILLIS)),
          inArray(jobs.state, ['waiting', 'running']),
        ),
      ),
    )
    .orderBy(desc(jobs.createdAt))
    .limit(SHOWN);
  if (rows.length === 0) return [];
  return summaries(context, rows, now);
}

/** Runs in short. Their steps are counted where they lie: thirty runs may have sixty thousand of them. */
async function summaries(context: Context, rows: readonly JobRow[], now: Date): Promise<RunSummary[]> {
  const counts = await context.db
    .select({ jobId: runSteps.jobId, state: runSteps.state, count: count() })
    .from(runSteps)
    .where(
      inArray(
        runSteps.jobId,
        rows.map(({ id }) => id),
      ),
    )
    .groupBy(runSteps.jobId, runSteps.state);
  return Promise.all(
    rows.map(async (job) =>
      summary(
        job,
        new Map(counts.flatMap(({ jobId, state, count }) => (jobId === job.id ? [[state, count]] : []))),
        isUnderWay(job) ? await lastEnds(context, job) : [],
        now,
      ),
    ),
  );
}

async function lastEnds(context: Context, { id }: JobRow): Promise<readonly Date[]> {
  const rows = await context.db
    .select({ endedAt: runSteps.endedAt })
    .from(runSteps)
    .where(and(eq(runSteps.jobId, id), isNotNull(runSteps.endedAt)))
    .orderBy(desc(runSteps.endedAt))
    .limit(RATE_STEPS);
  return rows.flatMap(({ endedAt }) => endedAt ?? []);
}

/** A person's runs that halted by themselves and wait to go on; one that a person stopped is that person's own affair. */
export async function haltedRuns(context: Context, personId: string, now: Date): Promise<RunSummary[]> {
  const runs = await recentRuns(context, personId, now);
  const halted = await context.db
    .select({ id: jobs.id })
    .from(jobs)
    .where(
      and(
        eq(jobs.kind, RUN),
        eq(jobs.createdBy, personId),
        inArray(jobs.state, ['failed', 'stopped']),
        eq(jobs.stopAsked, false),
      ),
    );
  const ids = new Set(halted.map(({ id }) => id));
  return runs.filter(({ id, done, refused, undone, of }) => ids.has(id) && done + refused + undone < of);
}

export async function readRun(context: Context, jobId: string, reader: Reader, now: Date): Promise<Run> {
  const job = await runJob(context, jobId, reader.id);
  const steps = await context.db
    .select()
    .from(runSteps)
    .where(eq(runSteps.jobId, jobId))
    .orderBy(asc(runSteps.ordinal));
  const found = await context.db
    .select()
    .from(held)
    .where(
      and(
        inArray(
          held.id,
          steps.map(({ assetId }) => assetId),
        ),
        seenBy(context, reader, held),
      ),
    );
  const rows = await shownRows(
    context,
    found,
    steps.map(({ row }) => row),
  );
  const [short] = await summaries(context, [job], now);
  if (!short) throw notFound('This run');
  return {
    ...short,
    order: v.parse(RunInputSchema, job.input).order,
    steps: steps.flatMap((step, at): RunStep[] => {
      const row = rows[at];
      return row
        ? [{ ...row, state: stateOf(step), sentence: step.sentence, madeBytes: step.madeBytes }]
        : [];
    }),
  };
}

function stateOf({ state }: Pick<StepRow, 'state'>): RunStep['state'] {
  switch (state) {
    case 'done':
    case 'refused':
    case 'undone':
    case 'out':
      return state;
    default:
      return 'waiting';
  }
}

/** How many of the last steps tell how fast it goes. */
const RATE_STEPS = 20;

function summary(
  job: JobRow,
  counts: ReadonlyMap<StepRow['state'], number>,
  lastEnds: readonly Date[],
  now: Date,
): RunSummary {
  const { id, title, state, words, file, bytes } = presentJob(job);
  const count = (wanted: StepRow['state']) => counts.get(wanted) ?? 0;
  const all = [...counts.values()].reduce((sum, one) => sum + one, 0);
  const waiting = count('waiting');
  const perMinute = isUnderWay(job) ? rateOf(lastEnds, now) : null;
  return {
    id,
    title,
    state,
    words,
    into: v.parse(RunInputSchema, job.input).order.into,
    createdAt: job.createdAt.toISOString(),
    done: count('done'),
    refused: count('refused'),
    undone: count('undone'),
    of: all - count('out'),
    perMinute,
    secondsLeft: perMinute ? Math.round((waiting / perMinute) * 60) : null,
    file,
    fileBytes: bytes,
  };
}

/** Steps a minute, from when the last ones ended, newest first; null while too few have. */
function rateOf(ends: readonly Date[], now: Date): number | null {
  const first = ends.at(-1);
  if (ends.length < 3 || first === undefined) return null;
  const minutes = Math.max(now.getTime() - first.getTime(), 1) / 60_000;
  return Math.round(((ends.length - 1) / minutes) * 10) / 10;
}
