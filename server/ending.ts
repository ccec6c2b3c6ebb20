import { setMaxListeners } from 'node:events';
import type { Server } from 'node:http';
import { setTimeout } from 'node:timers/promises';

/** After this long whatever is left is given up: jobs are taken over by others, files are written whole or not at all. */
const LIMIT_MILLIS = 9500;
const STEP_MILLIS = 50;
/** When nobody has asked for this long, nobody is about to. */
const QUIET_MILLIS = 500;
const TAKING_MILLIS = 3000;

/** How a process ends. */
export interface Ending {
  /** Aborts when the process is told to end. */
  readonly signal: AbortSignal;
  /** What is done before it ends: the last that was said first, one after the other. */
  readonly before: (work: () => Promise<unknown>) => void;
}

/**
 * Ends this process in order when it is told to (SIGTERM, SIGINT) or when whoever started it is gone, and in any case
 * within 10 s.
 */
export function ending(): Ending {
  const told = new AbortController();
  // Each kind of job waits on it, and each answer under way: more than a few is no leak.
  setMaxListeners(0, told.signal);
  const works: (() => Promise<unknown>)[] = [];
  const end = async () => {
    if (told.signal.aborted) return;
    told.abort();
    setTimeout(LIMIT_MILLIS).then(() => process.exit(0));
    for (const work of works.reverse()) await work().catch((error: unknown) => console.error(error));
    process.exit(0);
  };
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, end);
  process.on('disconnect', end);
  return { signal: told.signal, before: (work) => works.push(work) };
}

/**
 * Takes no more requests, answers those that are here, and resolves once the last one is. It goes on taking for as long as
 * new ones come, within a limit: whoever asks has learned from `/readyz` only a moment ago that others are to be asked, and
 * a line that was opened carries a question that may not be here yet.
 */
export async function answered(server: Server): Promise<void> {
  let isClosed = false;
  let askedAt = Date.now();
  const began = askedAt;
  const seen = () => {
    askedAt = Date.now();
  };
  server.on('connection', seen).on('request', seen);
  while (Date.now() - askedAt < QUIET_MILLIS && Date.now() - began < TAKING_MILLIS)
    await setTimeout(STEP_MILLIS);
  server.close(() => {
    isClosed = true;
  });
  while (!isClosed) {
    // A line that is kept open after its answer is idle then.
    server.closeIdleConnections();
    await setTimeout(STEP_MILLIS);
  }
}
