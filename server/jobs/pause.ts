import { setTimeout } from 'node:timers/promises';

/** Waits, or until `signal` aborts; that ends the wait early and is no fault. */
export function pause(millis: number, signal: AbortSignal): Promise<void> {
  return setTimeout(millis, undefined, { signal }).catch(() => undefined);
}
