import { OutboundProblem } from './problem.ts';

export interface Patience {
  /** How often it is tried in all. */
  readonly tries: number;
  /** The first wait in milliseconds; each one after is twice as long. */
  readonly firstWaitMillis: number;
  readonly longestWaitMillis: number;
}

/** Tries again after faults that may pass, waiting as long as the other side asks for, within bounds. */
export async function retry<T>(patience: Patience, signal: AbortSignal, work: () => Promise<T>): Promise<T> {
  let wait = patience.firstWaitMillis;
  for (let tries = 1; ; tries += 1) {
    try {
      return await work();
    } catch (error) {
      if (!(error instanceof OutboundProblem && error.isPassing) || tries >= patience.tries) throw error;
      await pause(Math.min(patience.longestWaitMillis, Math.max(wait, error.waitMillis ?? 0)), signal);
      wait *= 2;
    }
  }
}

function pause(millis: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const stop = () => {
      clearTimeout(timer);
      reject(new OutboundProblem('stopped', ''));
    };
    if (signal.aborted) {
      reject(new OutboundProblem('stopped', ''));
      return;
    }
    const timer = setTimeout(() => {
      signal.removeEventListener('abort', stop);
      resolve();
    }, millis);
    signal.addEventListener('abort', stop, { once: true });
  });
}
