import { expect, it } from 'vitest';
import { countFindings, type ReportDay, summedDays } from './day.ts';

it('counts findings by how they count and by what they are about', () => {
  expect(
    countFindings([
      { code: 'alt-missing', severity: 'stops' },
      { code: 'licence-claimed', severity: 'mend' },
      { code: 'oversized', severity: 'mend' },
      { code: 'link-vague', severity: 'note' },
    ]),
  ).toEqual({ stops: 1, mends: 2, words: 1, rights: 1 });
});

it('sums targets up by day, in their order, and weighs bytes by the pages that are out', () => {
  const day = (change: Partial<ReportDay>): ReportDay => ({
    day: '2026-11-02',
    pages: 1,
    out: 1,
    sent: 0,
    stops: 1,
    mends: 2,
    words: 1,
    rights: 0,
    bytes: null,
    ...change,
  });
  expect(
    summedDays([
      day({ out: 3, bytes: 100_000 }),
      day({ day: '2026-11-01', sent: 2 }),
      day({ out: 1, bytes: 300_000 }),
      day({ out: 4 }),
    ]),
  ).toEqual([
    day({ day: '2026-11-01', sent: 2 }),
    day({ pages: 3, out: 8, stops: 3, mends: 6, words: 3, bytes: 150_000 }),
  ]);
});
