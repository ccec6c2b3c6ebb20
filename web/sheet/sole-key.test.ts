import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { soleKey } from './sole-key.ts';

let later = Date.now();
beforeEach(() => {
  later += 60_000;
  vi.useFakeTimers({ now: later });
});
afterEach(() => vi.useRealTimers());

/** Types letters with pauses between them, in milliseconds, and says which did something. */
function typed(letters: string, pause: number): string {
  let acted = '';
  for (const letter of letters) {
    soleKey(Date.now(), () => {
      acted += letter;
    });
    vi.advanceTimersByTime(pause);
  }
  vi.advanceTimersByTime(1000);
  return acted;
}

describe('single letters', () => {
  it.each([
    ['l', 0, 'l'],
    ['lr', 400, 'lr'],
    ['We went over', 120, ''],
    ['lrcw', 240, ''],
  ])('"%s" with %i ms between them do "%s"', (letters, pause, acted) => {
    expect(typed(letters, pause)).toBe(acted);
  });
});
