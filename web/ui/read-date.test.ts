import { describe, expect, it } from 'vitest';
import { readDate } from './read-date.ts';

const TODAY = new Date(2026, 10, 28);

describe('a date that is typed', () => {
  it.each([
    ['2026-03-12', '2026-03-12'],
    ['12 March 2026', '2026-03-12'],
    ['12 mar 2026', '2026-03-12'],
    ['3/4/2026', '2026-04-03'],
    ['3.4.2026', '2026-04-03'],
    ['  12   March ', '2026-03-12'],
    ['29 February 2028', '2028-02-29'],
  ])('%s is %s', (typed, iso) => {
    expect(readDate(typed, TODAY)).toBe(iso);
  });

  it.each(['', 'soon', '31 February 2026', '2026-13-01', '12', '12 March 26', '1/2/3/4'])(
    '“%s” is none',
    (typed) => {
      expect(readDate(typed, TODAY)).toBeNull();
    },
  );
});
