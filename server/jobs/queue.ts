import { randomUUID } from 'node:crypto';
import { and, asc, count, eq, inArray, isNull, lt, notInArray, or, sql } from 'drizzle-orm';
import type { Job } from '#api/jobs.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { jobs } from '../db/schema.ts';
import { MAKE_FILM } from '../films/kinds.ts';
import { HttpProblem, notFound } from '../problem.ts';

export type JobRow = typeof jobs.$inferSelect;

/** A job whose worker has not renewed its lease for this long, five heartbeats, is taken over by another. */
export const LEASE_MILLIS = 10_000;

/**
 * A job that was interrupted this many times without going forward is not tried again by itself. With 3, a server that
 * was killed every three seconds for 100 seconds gave up 3 of 42 jobs that had nothing to do with it (`npm run soak`).
 */
const ATTEMPT_LIMIT = 10;

/** One attempt at a job. What an earlier attempt still reports is not taken for this one's. */
export interface Attempt {
  readonly id: string;
  readonly attemptId: string;
}

/** A job as one worker works it. */
export type TakenJob = JobRow & Attempt;

/** Thrown where an attempt is no longer the one that is made: another worker has taken the job over. */
export class AttemptLost extends Error {}

const isAttempt = ({ id, attemptId }: Attempt) => and(eq(jobs.id, id), eq(jobs.attemptId, attemptId));

/** Orders work; within a transaction when it is given one. The same `id` again orders nothing more. */
export async function addJob(
  { db }: { readonly db: Queries },
  job: { id?: string; kind: string; title: string; input: unknown; personId: string },
  now: Date,
): Promise<string> {
  const id = job.id ?? crypto.randomUUID();
  await db
    .insert(jobs)
    .ignore()
    .values({
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

/** Work that nobody orders: it follows from what came in, and takes no turn from what a person wants. */
const BY_ITSELF: readonly string[] = [MAKE_FILM];

/** Refuses another job to a person who has as many under way as one person may. */
export async function assertMayOrder({ db, config }: Context, personId: string): Promise<void> {
  const [row] = await db
    .select({ jobs: count() })
    .from(jobs)
    .where(
      and(
        eq(jobs.createdBy, personId),
        inArray(jobs.state, ['waiting', 'running']),
        notInArray(jobs.kind, [...BY_ITSELF]),
      ),
    );
  if ((row?.jobs ?? 0) < config.quotas.jobsEach) return;
  throw new HttpProblem(
    429,
    `You have ${config.quotas.jobsEach} pieces of work under way, which is as many as one person has at once. Wait until some have ended.`,
    { retryAfterSeconds: 10 },
  );
}

/**
 * Takes the next job of these kinds that waits, or whose worker died. Many workers may ask at once; each gets another.
 */
export async function takeJob(
  context: Context,
  kinds: readonly string[],
  now: Date,
): Promise<TakenJob | undefined> {
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
        .set({ state: 'failed', words: sayInterrupted(row), leaseUntil: null, attemptId: null })
        .where(eq(jobs.id, row.id));
      return undefined;
    }
    const taken = { attemptId: randomUUID(), attempts: row.attempts + 1, leaseUntil: leaseFrom(now) };
    await tx
      .update(jobs)
      .set({ ...taken, state: 'running' })
      .where(eq(jobs.id, row.id));
    return { ...row, ...taken, state: 'running' };
  });
}

function sayInterrupted({ doneSteps, allSteps }: JobRow): string {
  const where = allSteps > 0 ? ` after ${doneSteps} of ${allSteps}` : '';
  return `It was interrupted ${ATTEMPT_LIMIT} times${where} without going forward, and is not tried again by itself. What is done stays; let it go on when it is clear why.`;
}

/**
 * Renews the lease and says how far it is. Further than the attempts before, it may be interrupted as often again. Answers whether a person
 * asked it to stop; throws `AttemptLost`.
 */
export function reportJob(
  context: Context,
  job: TakenJob,
  progress: { done: number; of: number; words: string },
  now: Date,
): Promise<boolean> {
  return renew(context, job, {
    ...(progress.done > job.doneSteps ? { attempts: 0 } : {}),
    doneSteps: progress.done,
    allSteps: progress.of,
    words: progress.words.slice(0, 500),
    leaseUntil: leaseFrom(now),
  });
}

/** Renews the lease between two steps. Answers whether a person asked the job to stop; throws `AttemptLost`. */
export function renewLease(context: Context, attempt: Attempt, now: Date): Promise<boolean> {
  return renew(context, attempt, { leaseUntil: leaseFrom(now) });
}

async function renew(
  { db }: Context,
  attempt: Attempt,
  set: Parameters<ReturnType<Queries['update']>['set']>[0],
): Promise<boolean> {
  await db
    .update(jobs)
    .set(set)
    .where(and(isAttempt(attempt), eq(jobs.state, 'running')));
  const [row] = await db.select({ stopAsked: jobs.stopAsked }).from(jobs).where(isAttempt(attempt));
  if (!row) throw new AttemptLost();
  return row.stopAsked;
}

/** Ends a job as this attempt left it; false where another attempt is made meanwhile, and says by itself how it ends. */
export async function endJob(
  context: Context,
  attempt: Attempt,
  end: { state: 'done' | 'failed' | 'stopped'; words: string; resultKey?: string; resultBytes?: number },
): Promise<boolean> {
  const [result] = await context.db
    .update(jobs)
    .set({
      state: end.state,
      words: end.words.slice(0, 500),
      leaseUntil: null,
      attemptId: null,
      resultKey: end.resultKey ?? null,
      resultBytes: end.resultBytes ?? null,
    })
    .where(isAttempt(attempt));
  return result.affectedRows > 0;
}

/**
 * Puts a job back for whoever comes next: its worker ends, or was cut off from the database. That was no fault of the
 * job, so it does not count as one of its interruptions.
 */
export async function putBack(context: Context, attempt: Attempt): Promise<void> {
  await context.db
    .update(jobs)
    .set({
      state: 'waiting',
      leaseUntil: null,
      attemptId: null,
      attempts: sql`greatest(${jobs.attempts} - 1, 0)`,
    })
    .where(and(isAttempt(attempt), eq(jobs.state, 'running')));
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
    .set({
      state: 'waiting',
      stopAsked: false,
      attempts: 0,
      attemptId: null,
      resultKey: null,
      resultBytes: null,
    })
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
