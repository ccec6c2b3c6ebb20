import { describe, expect, it } from 'vitest';
import { cameBy, sayThere, thereAfter } from './slow-line.ts';

const coming = {
  painted: 620,
  loads: [
    { block: 'lead', at: 2400, bytes: 180_000 },
    { block: 'map', at: 950, bytes: 20_000 },
    { block: 'lead', at: 3200, bytes: 50_000 },
  ],
};

describe('what is there on a slow line', () => {
  it.each([
    [0.5, 'nothing yet', ['lead', 'map']],
    [1, 'the words and 1 of 3 pictures', ['lead']],
    [3, 'the words and 2 of 3 pictures', ['lead']],
    [4, 'the words and all 3 pictures', []],
  ])('after %d s: %s', (seconds, words, late) => {
    const there = thereAfter(coming, seconds);
    expect(sayThere(there, coming.loads.length)).toBe(words);
    expect([...there.late].sort()).toEqual(late);
  });

  it('is nothing before anything could be read, and all of a page without pictures', () => {
    expect(sayThere(thereAfter({ painted: null, loads: [] }, 3), 0)).toBe('nothing yet');
    expect(sayThere(thereAfter({ painted: 10, loads: [] }, 1), 0)).toBe('all of it: it has no pictures');
  });

  it('comes in steps, in the order in which it came', () => {
    expect(cameBy(coming)).toEqual([
      { seconds: 0, bytes: 0 },
      { seconds: 0.95, bytes: 20_000 },
      { seconds: 2.4, bytes: 200_000 },
      { seconds: 3.2, bytes: 250_000 },
    ]);
  });
});
