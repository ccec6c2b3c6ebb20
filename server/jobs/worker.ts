import type { Context } from '../context.ts';
import { isDatabaseBusy, isDatabaseGone } from '../db/failures.ts';
import { TAKE_AWAY, takeAway } from '../deliver/take-away.ts';
import { MAKE_FILM } from '../films/kinds.ts';
import { makeFilm } from '../films/make.ts';
import { MOVE_FILM, moveFilm } from '../films/move.ts';
import { GATHER, gather } from '../gather/taking.ts';
import { BRING_IN, bringIn } from '../inherited/bring-in.ts';
import { READ_INHERITED, readInheritedPages } from '../inherited/look.ts';
import { tellInTime } from '../notify/tell.ts';
import { HttpProblem } from '../problem.ts';
import { buy } from '../rights/buying.ts';
import { BUY } from '../rights/purchases.ts';
import { RUN, run } from '../runs/work.ts';
import { EVIDENCE, packEvidence } from '../sending/evidence.ts';
import { followPlansInTime } from '../sending/plans.ts';
import { SEND, send } from '../sending/send.ts';
import { isStorageGone } from '../storage/failures.ts';
import { tidyNowAndThen } from './now-and-then.ts';
import { pause } from './pause.ts';
import { AttemptLost, endJob, putBack, renewLease, reportJob, type TakenJob, takeJob } from './queue.ts';
import { type JobResult, type JobTools, Stopped } from './work.ts';

type Work = (context: Context, job: TakenJob, tools: JobTools) => Promise<JobResult>;

const KINDS: Readonly<Record<string, Work>> = {
  [TAKE_AWAY]: takeAway,
  [GATHER]: gather,
  [RUN]: run,
  [BUY]: buy,
  [SEND]: send,
  [EVIDENCE]: packEvidence,
  [READ_INHERITED]: readInheritedPages,
  [BRING_IN]: bringIn,
  [MAKE_FILM]: makeFilm,
  [MOVE_FILM]: moveFilm,
};

const IDLE_MILLIS = 250;
/** Well under the lease, so that one lost heartbeat does not hand the job to another worker. */
const HEARTBEAT_MILLIS = 2000;

/**
 * Works jobs until `signal` aborts: those of one kind one after the other, and each kind beside the others, so that a
 * picture that is gathered does not wait for a run over thousands.
 */
export async function workJobs(context: Context, signal: AbortSignal): Promise<void> {
  const lanes = Object.keys(KINDS).map((kind) => workLane(context, kind, signal));
  const beside = [tidyNowAndThen, followPlansInTime, tellInTime].map((work) => work(context, signal));
  await Promise.all([...lanes, ...beside]);
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

/** Takes and works one job of these kinds; false when none waits. */
export async function workOne(
  context: Context,
  kinds: readonly string[] = Object.keys(KINDS),
): Promise<boolean> {
  const job = await takeJob(context, kinds, new Date());
  if (!job) return false;
  const stopping = new AbortController();
  const stopAll = AbortSignal.any([stopping.signal, context.ending]);
  const heartbeat = setInterval(() => {
    renewLease(context, job, new Date()).then(
      (isStopAsked) => isStopAsked && stopping.abort(),
      (error: unknown) => {
        // Another worker has it: two that work at the same would do everything twice.
        if (error instanceof AttemptLost) stopping.abort();
        else context.log.warn({ err: error, job: job.id }, 'a lease could not be renewed');
      },
    );
  }, HEARTBEAT_MILLIS);
  const tools: JobTools = {
    signal: stopAll,
    report: async (done, of, words) => {
      const isStopAsked = await reportJob(context, job, { done, of, words }, new Date());
      if (isStopAsked || stopAll.aborted) throw new Stopped();
    },
  };
  try {
    await end(context, job, stopping.signal, await worked(context, job, tools));
  } finally {
    clearInterval(heartbeat);
  }
  return true;
}

/** How an attempt came to its end. */
type Outcome =
  | (Omit<JobResult, 'state'> & { readonly state: 'done' | 'stopped' | 'failed' })
  | 'lost'
  | 'cut-off';

async function worked(context: Context, job: TakenJob, tools: JobTools): Promise<Outcome> {
  try {
    const work = KINDS[job.kind];
    if (!work) throw new Error(`Nobody knows how to do "${job.kind}".`);
    return { state: 'done', ...(await work(context, job, tools)) };
  } catch (error) {
    if (error instanceof AttemptLost) return 'lost';
    if (isDatabaseGone(error) || isDatabaseBusy(error) || isStorageGone(error)) return 'cut-off';
    if (error instanceof Stopped || tools.signal.aborted)
      return { state: 'stopped', words: 'Stopped. Nothing was changed.' };
    context.log.error({ err: error, job: job.id }, 'a job failed');
    const words =
      error instanceof HttpProblem
        ? error.message
        : 'It did not work. Nothing was changed; it has been written to the log.';
    return { state: 'failed', words };
  }
}

async function end(
  context: Context,
  job: TakenJob,
  isStopAsked: AbortSignal,
  outcome: Outcome,
): Promise<void> {
  if (outcome === 'lost') return;
  const isEnding = context.ending.aborted && !isStopAsked.aborted;
  const isPutBack = outcome === 'cut-off' || (isEnding && outcome.state === 'stopped');
  if (isPutBack) await untilItAnswers(context, () => putBack(context, job));
  else await untilItAnswers(context, () => endJob(context, job, outcome));
}

/** Tells the database once it answers again; a process that ends leaves it to the lease. */
async function untilItAnswers(context: Context, tell: () => Promise<unknown>): Promise<void> {
  for (;;) {
    try {
      await tell();
      return;
    } catch (error) {
      if (!(isDatabaseGone(error) || isDatabaseBusy(error))) throw error;
      if (context.ending.aborted) return;
      await pause(IDLE_MILLIS, context.ending);
    }
  }
}
