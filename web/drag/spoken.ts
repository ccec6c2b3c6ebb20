import { Store } from '../ui/store.ts';

/** What is said to those who cannot see what moved. */
export const spoken = new Store('');

export function say(words: string): void {
  // The same words twice are a change too, or the second time would not be heard.
  spoken.set(spoken.state === words ? `${words}\u00a0` : words);
}
