import { Store } from '../ui/store.ts';

/** What is said to those who cannot see what moved. */
export const spoken = new Store('');

let saidAt = Number.NEGATIVE_INFINITY;

export function say(words: string): void {
  saidAt = performance.now();
  // The same words twice are a change too, or the second time would not be heard.
  spoken.set(spoken.state === words ? `${words}\u00a0` : words);
}

/** What is being said still, since it was begun so shortly before. */
const STILL_MILLIS = 800;

/** Says something that follows from what was said a moment ago, without cutting that off. */
export function sayToo(words: string): void {
  const isStill = performance.now() - saidAt < STILL_MILLIS;
  say(isStill ? `${spoken.state.trim()} ${words}` : words);
}
