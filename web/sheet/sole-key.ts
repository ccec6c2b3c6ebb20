import { TYPING_MILLIS } from '../ui/typing.ts';

let waiting: { readonly timer: ReturnType<typeof setTimeout>; readonly act: () => void } | null = null;
let last = Number.NEGATIVE_INFINITY;

/** Whether a letter comes so soon after another that text is meant. `now` is the time of the key, in milliseconds. */
function isTyped(now: number): boolean {
  const since = now - last;
  last = now;
  // A clock that was put back is no typing.
  return since >= 0 && since < TYPING_MILLIS;
}

function drop(): void {
  if (waiting) clearTimeout(waiting.timer);
  waiting = null;
}

/**
 * Does what a single letter stands for, once it is known to be single: of letters that are typed in a row none does
 * anything, since whoever typed them meant text.
 */
export function soleKey(now: number, act: () => void): void {
  drop();
  if (isTyped(now)) return;
  waiting = { timer: setTimeout(settleSoleKey, TYPING_MILLIS), act };
}

/** Does at once what waits: another key than a letter came, and what it does comes after. */
export function settleSoleKey(): void {
  const act = waiting?.act;
  drop();
  act?.();
}

/** As `soleKey`, for what can be taken back by the next letter: it is done at once. */
export function firstKey(now: number, act: () => void): void {
  drop();
  if (!isTyped(now)) act();
}
