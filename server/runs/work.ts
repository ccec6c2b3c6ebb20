import { asc, eq } from 'drizzle-orm';
import * as v from 'valibot';
import { eachAtMost } from '../at-once.ts';
import type { Context } from '../context.ts';
import { isDatabaseBusy, isDatabaseGone } from '../db/failures.ts';
import { held, runSteps } from '../db/schema.ts';
import type { JobRow } from '../jobs/queue.ts';
import { type JobResult, type JobTools, Stopped } from '../jobs/work.ts';
import { isNoSpace } from '../problem.ts';
import { isStorageGone } from '../storage/failures.ts';
import { RunInputSchema } from './input.ts';
import { packRun } from './pack.ts';
import { runCut } from './run-cut.ts';
import { applyStep, type StepRow, settle } from './step.ts';

export const RUN = 'run';

/** As many pieces are cut at once as keep two processors busy; the encoders use more by themselves. */
const AT_ONCE = 2;

/**
 * Works a run: the files of each piece, then what changes of the piece itself, each piece a step that is done once
 * whoever does it. Killed, it goes on with the steps that wait; stopped, what is done stays and can be taken back.
 */
export async function run(context: Context, job: JobRow, tools: JobTools): Promise<JobResult> {
  const { order } = v.parse(RunInputSchema, job.input);
  const steps = await context.db
    .select()
    .from(runSteps)
    .where(eq(runSteps.jobId, job.id))
    .orderBy(asc(runSteps.ordinal));
  const part = steps.filter(({ state }) => state !== 'out');
  const waiting = part.filter(({ state }) => state === 'waiting');
  let done = part.length - waiting.length;
  const report = () => tools.report(done, part.length, 'Under way');
  try {
    await report();
    // Files are made side by side; changes follow one after the other, in the order in which their names were settled.
    let before: Promise<unknown> = Promise.resolve();
    await eachAtMost(AT_ONCE, waiting, async (step) => {
      if (tools.signal.aborted) throw new Stopped();
      const made = await makeFiles(context, step, tools.signal);
      const turn = before.then(() => finish(context, step, made, order.into, job.createdBy));
      before = turn.catch(() => undefined);
      await turn;
      done += 1;
      await report();
    });
    if (order.into === 'shelf') return { words: sayDone(await countOf(context, job.id)) };
    const packed = await packRun(context, job, tools);
    return { ...packed, words: sayDone(await countOf(context, job.id)) };
  } catch (error) {
    return sayEnd(error, await countOf(context, job.id));
  }
}

interface Count {
  readonly done: number;
  readonly refused: number;
  readonly of: number;
}

async function countOf(context: Context, jobId: string): Promise<Count> {
  const states = await context.db
    .select({ state: runSteps.state })
    .from(runSteps)
    .where(eq(runSteps.jobId, jobId));
  const count = (wanted: string) => states.filter(({ state }) => state === wanted).length;
  return { done: count('done'), refused: count('refused'), of: states.length - count('out') };
}

function sayDone({ done, refused, of }: Count): string {
  return refused === 0 ? `${done} of ${of} done.` : `${done} done, ${refused} left as they were.`;
}

/** How a run ends early. What it has done stays done and is said; anything unforeseen is for the worker to say. */
function sayEnd(error: unknown, { done, of }: Count): JobResult {
  if (error instanceof Stopped)
    return { state: 'stopped', words: `Stopped. ${done} of ${of} are done and stay so.` };
  if (isNoSpace(error))
    return {
      state: 'stopped',
      words: `There is no room left to store files. ${done} of ${of} are done; make room, then go on.`,
    };
  throw error;
}

type Made = { readonly bytes: number } | { readonly fault: string };

async function makeFiles(context: Context, step: StepRow, signal: AbortSignal): Promise<Made> {
  const [source] = await context.db.select().from(held).where(eq(held.id, step.assetId));
  if (!source || source.deletedAt !== null) return { fault: 'It was thrown away meanwhile.' };
  try {
    let bytes = 0;
    for (const file of step.row.files) {
      if (signal.aborted) throw new Stopped();
      bytes += (await runCut(context, source, file)).bytes;
    }
    return { bytes };
  } catch (error) {
    if (error instanceof Stopped || isPassing(error)) throw error;
    context.log.warn({ err: error, asset: step.assetId }, 'a file of a run could not be made');
    return { fault: 'Its original cannot be read any more, so nothing was made of it. Hand it in anew.' };
  }
}

/** Nothing of the piece: what failed may work in a while, or when there is room. */
function isPassing(error: unknown): boolean {
  return isDatabaseGone(error) || isDatabaseBusy(error) || isStorageGone(error) || isNoSpace(error);
}

async function finish(
  context: Context,
  step: StepRow,
  made: Made,
  into: 'shelf' | 'zip',
  personId: string,
): Promise<void> {
  const now = new Date();
  if ('fault' in made) {
    await settle(context.db, step, { state: 'refused', sentence: made.fault, madeBytes: 0, now });
    return;
  }
  if (into === 'zip')
    await settle(context.db, step, { state: 'done', sentence: '', madeBytes: made.bytes, now });
  else await applyStep(context, step, made.bytes, personId, now);
}
