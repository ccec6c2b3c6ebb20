import type { Context } from '../server/context.ts';
import { reportDays } from '../server/db/schema.ts';

const DAY_MILLIS = 24 * 60 * 60 * 1000;
const DAYS = 84;

/** How the pages of each target of the demo stood before today, as it has got better since the house began to look after them. */
const STOOD = [
  {
    targetId: 'reserve',
    pages: 5,
    bytes: [1_450_000, 610_000],
    stops: [14, 7],
    mends: [22, 12],
    out: [1, 3],
  },
  { targetId: 'bulletin', pages: 1, bytes: [520_000, 330_000], stops: [4, 1], mends: [6, 2], out: [0, 1] },
] as const;

/** Days that the demo was not there for, so that its report has something to look back on. */
export async function seedReport({ db }: Context, now: Date): Promise<void> {
  const rows = STOOD.flatMap(({ targetId, pages, bytes, stops, mends, out }) =>
    Array.from({ length: DAYS }, (_, index) => {
      const ago = DAYS - index;
      const share = index / DAYS;
      const between = ([from, to]: readonly [number, number], wave = 0) =>
        Math.max(0, Math.round(from + (to - from) * share + wave * Math.sin(index / 5)));
      const standing = between(stops, 1);
      return {
        day: new Date(now.getTime() - ago * DAY_MILLIS).toISOString().slice(0, 10),
        targetId,
        pages,
        out: between(out),
        // Fridays, as the bulletin and the week's page go out.
        sent: (Math.floor(now.getTime() / DAY_MILLIS) - ago) % 7 === 1 ? between([1, 2]) : 0,
        stops: standing,
        mends: between(mends, 1.5),
        words: Math.round(standing * 0.6),
        rights: Math.round(standing * 0.4),
        bytes: between(bytes, 30_000),
      };
    }),
  );
  await db.insert(reportDays).ignore().values(rows);
}
