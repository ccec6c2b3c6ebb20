import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { localIn, momentsOf } from './zoned-time.ts';

const told = (local: string, timeZone: string) =>
  momentsOf(local, timeZone).map((moment) => moment.toISOString());

describe('the moments at which clocks show a time', () => {
  it.each<readonly [what: string, local: string, timeZone: string, moments: readonly string[]]>([
    ['in winter', '2026-12-01T06:00', 'Europe/London', ['2026-12-01T06:00:00.000Z']],
    ['in summer', '2026-06-01T06:00', 'Europe/London', ['2026-06-01T05:00:00.000Z']],
    ['far in the east', '2026-12-01T06:00', 'Pacific/Kiritimati', ['2026-11-30T16:00:00.000Z']],
    ['at half an hour', '2026-12-01T06:00', 'Asia/Kolkata', ['2026-12-01T00:30:00.000Z']],
    ['never, in the hour that is passed over', '2026-03-29T01:30', 'Europe/London', []],
    [
      'twice, in the hour that is repeated',
      '2026-10-25T01:30',
      'Europe/London',
      ['2026-10-25T00:30:00.000Z', '2026-10-25T01:30:00.000Z'],
    ],
    [
      'twice, where the clocks go back half an hour',
      '2026-04-05T01:45',
      'Australia/Lord_Howe',
      ['2026-04-04T14:45:00.000Z', '2026-04-04T15:15:00.000Z'],
    ],
    ['never, on no day', '2026-02-30T06:00', 'Europe/London', []],
    ['never, in no time', 'at six', 'Europe/London', []],
  ])('%s', (_what, local, timeZone, moments) => {
    expect(told(local, timeZone)).toEqual(moments);
  });

  it('are found again from what clocks show, at every minute of some years', () => {
    const zones = ['Europe/London', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kolkata', 'UTC'];
    const minutes = fc.integer({ min: Date.UTC(2024, 0) / 60_000, max: Date.UTC(2030, 0) / 60_000 });
    fc.assert(
      fc.property(minutes, fc.constantFrom(...zones), (minute, timeZone) => {
        const moment = new Date(minute * 60_000);
        const moments = momentsOf(localIn(timeZone, moment), timeZone);
        expect(moments.map((one) => one.getTime())).toContain(moment.getTime());
      }),
    );
  });
});
