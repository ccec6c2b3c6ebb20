import { Stopped } from './work.ts';

/** A person sees no more of it. */
const LEAST_BETWEEN_MILLIS = 250;

/**
 * The same report, written down a few times a second at most, for work of many short steps: each would cost as much as the step.
 * What stops the work is heeded at each.
 */
export function seldom<Args extends readonly unknown[]>(
  report: (...args: Args) => Promise<void>,
  signal: AbortSignal,
): (...args: Args) => Promise<void> {
  let last = Number.NEGATIVE_INFINITY;
  return async (...args) => {
    if (signal.aborted) throw new Stopped();
    const now = performance.now();
    if (now - last < LEAST_BETWEEN_MILLIS) return;
    last = now;
    await report(...args);
  };
}
