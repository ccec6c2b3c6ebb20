import { setTimeout } from 'node:timers/promises';
import type { Context } from '../context.ts';
import { isDatabaseGone } from '../db/failures.ts';
import { TAKE_AWAY, takeAway } from '../deliver/take-away.ts';
import { GATHER, gather } from '../gather/taking.ts';
import { Refusal } from '../problem.ts';
import { RUN, run } from '../runs/work.ts';
import { endJob, type JobRow, renewLease, reportJob, takeJob } from './queue.ts';
import { tidy } from './tidy.ts';
import { type JobResult, type JobTools, Stopped } from './work.ts';

type Work = (context: Context, job: JobRow, tools: JobTools) => Promise<JobResult>;

const KINDS: Readonly<Record<string, Work>> = { [TAKE_AWAY]: takeAway, [GATHER]: gather, [RUN]: run };

const TIDY_MILLIS = 60 * 60 * 1000;
const IDLE_MILLIS = 250;
/** Well under the lease, so that one lost heartbeat does not hand the job to another worker. */
const HEARTBEAT_MILLIS = 2000;

/**
 * Works jobs until `signal` aborts: those of one kind one after the other, and each kind beside the others, so that a
 * picture that is gathered does not wait for a run over thousands.
 */
export async function workJobs(context: Context, signal: AbortSignal): Promise<void> {
  const lanes = Object.keys(KINDS).map((kind) => workLane(context, kind, signal));
  await Promise.all([...lanes, tidyNowAndThen(context, signal)]);
}

async function workLane(context: Context, kind: string, signal: AbortSignal): Promise<void> {
  while (!signal.aborted) {
    const worked = await workOne(context, [kind]).catch((error: unknown) => {
      if (!isDatabaseGone(error)) context.log.error({ err: error }, 'a job could not be taken');
      return false;
    });
    if (!worked) await pause(IDLE_MILLIS, signal);
  }
}

async function tidyNowAndThen(context: Context, signal: AbortSignal): Promise<void> {
  while (!signal.aborted) {
    const isMore = await tidy(context, new Date()).catch((error: unknown) => {
      context.log.warn({ err: error }, 'tidying up did not work');
      return false;
    });
    await pause(isMore ? IDLE_MILLIS : TIDY_MILLIS, signal);
  }
}

/** Takes and works one job of these kinds; false when none waits. */
export async function workOne(
  context: Context,
  kinds: readonly string[] = Object.keys(KINDS),
): Promise<boolean> {
  const job = await takeJob(context, kinds, new Date());
  if (!job) return false;
  const work = KINDS[job.kind];
  const stopping = new AbortController();
  const heartbeat = setInterval(() => {
    renewLease(context, job.id, new Date()).then(
      (isStopAsked) => isStopAsked && stopping.abort(),
      (error: unknown) => context.log.warn({ err: error, job: job.id }, 'a lease could not be renewed'),
    );
  }, HEARTBEAT_MILLIS);
  const tools: JobTools = {
    signal: stopping.signal,
    report: async (done, of, words) => {
      if (await reportJob(context, job.id, { done, of, words }, new Date())) throw new Stopped();
    },
  };
  try {
    if (!work) throw new Error(`Nobody knows how to do "${job.kind}".`);
    await endJob(context, job.id, { state: 'done', ...(await work(context, job, tools)) });
  } catch (error) {
    await endFailed(context, job, error);
  } finally {
    clearInterval(heartbeat);
  }
  return true;
}

async function endFailed(context: Context, job: JobRow, error: unknown): Promise<void> {
  if (isDatabaseGone(error)) throw error;
  if (error instanceof Stopped) {
    await endJob(context, job.id, { state: 'stopped', words: 'Stopped. Nothing was changed.' });
    return;
  }
  context.log.error({ err: error, job: job.id }, 'a job failed');
  const words =
    error instanceof Refusal
      ? error.message
      : 'It did not work. Nothing was changed; it has been written to the log.';
  await endJob(context, job.id, { state: 'failed', words });
}

function pause(millis: number, signal: AbortSignal): Promise<void> {
  // Its own signal ends the wait early; that is no fault.
  return setTimeout(millis, undefined, { signal }).catch(() => undefined);
}
