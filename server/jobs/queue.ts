import { and, asc, eq, inArray, isNull, lt, or, sql } from 'drizzle-orm';
import type { Job } from '#api/jobs.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { jobs } from '../db/schema.ts';
import { notFound } from '../problem.ts';

export type JobRow = typeof jobs.$inferSelect;

/** A job whose worker has not renewed its lease for this long, five heartbeats, is taken over by another. */
export const LEASE_MILLIS = 10_000;

/** A job that ended its worker this many times is not tried again. */
const ATTEMPT_LIMIT = 3;

/** Orders work; within a transaction when it is given one. */
export async function addJob(
  { db }: { readonly db: Queries },
  job: { id?: string; kind: string; title: string; input: unknown; personId: string },
  now: Date,
): Promise<string> {
  const id = job.id ?? crypto.randomUUID();
  await db.insert(jobs).values({
    id,
    kind: job.kind,
    title: job.title.slice(0, 300),
    input: job.input,
    state: 'waiting',
    createdBy: job.personId,
    createdAt: now,
  });
  return id;
}

/**
 * Takes the next job of these kinds that waits, or whose worker died. Many workers may ask at once; each gets another.
 */
export async function takeJob(
  context: Context,
  kinds: readonly string[],
  now: Date,
): Promise<JobRow | undefined> {
  return context.db.transaction(async (tx) => {
    const [row] = await tx
      .select()
      .from(jobs)
      .where(
        and(
          inArray(jobs.kind, [...kinds]),
          or(
            eq(jobs.state, 'waiting'),
            and(eq(jobs.state, 'running'), or(isNull(jobs.leaseUntil), lt(jobs.leaseUntil, now))),
          ),
        ),
      )
      .orderBy(asc(jobs.createdAt))
      .limit(1)
      .for('update', { skipLocked: true });
    if (!row) return undefined;
    if (row.attempts >= ATTEMPT_LIMIT) {
      await tx
        .update(jobs)
        .set({ state: 'failed', words: 'It ended its worker three times and is not tried again.' })
        .where(eq(jobs.id, row.id));
      return undefined;
    }
    await tx
      .update(jobs)
      .set({ state: 'running', leaseUntil: leaseFrom(now), attempts: row.attempts + 1 })
      .where(eq(jobs.id, row.id));
    return row;
  });
}

/** Renews the lease and says how far it is. Answers whether a person asked it to stop. */
export async function reportJob(
  context: Context,
  id: string,
  progress: { done: number; of: number; words: string },
  now: Date,
): Promise<boolean> {
  await context.db
    .update(jobs)
    .set({
      doneSteps: progress.done,
      allSteps: progress.of,
      words: progress.words.slice(0, 500),
      leaseUntil: leaseFrom(now),
    })
    .where(eq(jobs.id, id));
  const [row] = await context.db.select({ stopAsked: jobs.stopAsked }).from(jobs).where(eq(jobs.id, id));
  return row?.stopAsked ?? true;
}

/** Renews the lease between two steps. Answers whether a person asked the job to stop. */
export async function renewLease(context: Context, id: string, now: Date): Promise<boolean> {
  await context.db
    .update(jobs)
    .set({ leaseUntil: leaseFrom(now) })
    .where(and(eq(jobs.id, id), eq(jobs.state, 'running')));
  const [row] = await context.db.select({ stopAsked: jobs.stopAsked }).from(jobs).where(eq(jobs.id, id));
  return row?.stopAsked ?? true;
}

export async function endJob(
  context: Context,
  id: string,
  end: { state: 'done' | 'failed' | 'stopped'; words: string; resultKey?: string; resultBytes?: number },
): Promise<void> {
  await context.db
    .update(jobs)
    .set({
      state: end.state,
      words: end.words.slice(0, 500),
      leaseUntil: null,
      resultKey: end.resultKey ?? null,
      resultBytes: end.resultBytes ?? null,
    })
    .where(eq(jobs.id, id));
}

export async function stopJob(context: Context, id: string): Promise<void> {
  await context.db
    .update(jobs)
    .set({ stopAsked: true, state: sql`if(${jobs.state} = 'waiting', 'stopped', ${jobs.state})` })
    .where(eq(jobs.id, id));
}

/** Lets a job that was stopped or failed go on from where it is. */
export async function goOnWithJob(context: Context, id: string): Promise<void> {
  await context.db
    .update(jobs)
    .set({ state: 'waiting', stopAsked: false, attempts: 0, resultKey: null, resultBytes: null })
    .where(and(eq(jobs.id, id), inArray(jobs.state, ['stopped', 'failed', 'done'])));
}

export async function readJob(context: Context, id: string): Promise<JobRow> {
  const [row] = await context.db.select().from(jobs).where(eq(jobs.id, id));
  if (!row) throw notFound('This work');
  return row;
}

export function presentJob(row: JobRow): Job {
  return {
    id: row.id,
    kind: row.kind,
    title: row.title,
    state: stateOf(row.state),
    done: row.doneSteps,
    of: row.allSteps,
    words: row.words,
    file: row.resultKey ? `/api/jobs/${row.id}/file` : null,
    bytes: row.resultBytes,
  };
}

function stateOf(state: string): Job['state'] {
  switch (state) {
    case 'waiting':
    case 'running':
    case 'done':
    case 'failed':
      return state;
    default:
      return 'stopped';
  }
}

function leaseFrom(now: Date): Date {
  return new Date(now.getTime() + LEASE_MILLIS);
}
