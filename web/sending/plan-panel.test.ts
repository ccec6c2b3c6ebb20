import { describe, expect, it } from 'vitest';
import { readSaid, sayPlan } from './plan-panel.tsx';

const LONDON = 'Europe/London';
const said = (day: string, time: string, which: 'first' | 'second' | null = null) =>
  readSaid({ day, time, which }, LONDON);

describe('a moment that is said', () => {
  it.each([
    ['2026-12-01', '06:00', null, '2026-12-01T06:00:00.000Z'],
    ['2026-12-01', '6:00', null, '2026-12-01T06:00:00.000Z'],
    ['2026-06-01', '06:00', null, '2026-06-01T05:00:00.000Z'],
    ['2026-10-25', '01:30', 'first', '2026-10-25T00:30:00.000Z'],
    ['2026-10-25', '01:30', 'second', '2026-10-25T01:30:00.000Z'],
  ] as const)('%s %s %s', (day, time, which, moment) => {
    expect(said(day, time, which)).toEqual({ moment, fault: null });
  });

  it.each([
    ['', '06:00', /A day is written/],
    ['2026-12-01', '', /A time is written/],
    ['2026-12-01', '24:00', /from 00:00 to 23:59/],
    ['2026-03-29', '01:30', /there is no 01:30/],
    ['2026-10-25', '01:30', /Say which 01:30/],
  ])('%s %s is no moment yet', (day, time, fault) => {
    expect(said(day, time).fault).toMatch(fault);
  });

  it('may be left out', () => {
    expect(said('', '')).toEqual({ moment: null, fault: null });
  });
});

describe('what is planned', () => {
  const plan = {
    startAt: '2026-12-01T06:00:00Z',
    endAt: null,
    state: 'waiting',
    by: 'Mara',
    words: '',
  } as const;
  it.each([
    [plan, 'Goes out 1 December 2026 at 06:00 GMT, planned by Mara.'],
    [
      { ...plan, endAt: '2026-07-01T06:00:00Z' },
      'Goes out 1 December 2026 at 06:00 GMT, and is taken down 1 July 2026 at 07:00 BST, planned by Mara.',
    ],
    [
      { ...plan, state: 'out', endAt: '2026-12-02T06:00:00Z' } as const,
      'Is taken down 2 December 2026 at 06:00 GMT, planned by Mara.',
    ],
    [
      { ...plan, state: 'failed', words: 'It cannot go out yet.' } as const,
      'What was planned came to nothing. It cannot go out yet.',
    ],
    [{ ...plan, state: 'done' } as const, null],
    [null, null],
  ])('is said', (one, sentence) => {
    expect(sayPlan(one, LONDON)).toBe(sentence);
  });
});
