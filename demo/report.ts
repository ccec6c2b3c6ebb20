import type { Context } from '../server/context.ts';
import { reportDays } from '../server/db/schema.ts';

const DAY_MILLIS = 24 * 60 * 60 * 1000;
const DAYS = 84;

/** How the pages of each target of the demo stood before today: none was out, and what they lacked has become less. */
const STOOD = [
  { targetId: 'reserve', pages: 6, stops: [17, 8], mends: [24, 9] },
  { targetId: 'bulletin', pages: 1, stops: [4, 1], mends: [5, 0] },
] as const;

/** Days that the demo was not there for, so that its report has something to look back on. */
export async function seedReport({ db }: Context, now: Date): Promise<void> {
  const rows = STOOD.flatMap(({ targetId, pages, stops, mends }) =>
    Array.from({ length: DAYS }, (_, index) => {
      const ago = DAYS - index;
      const share = index / DAYS;
      const between = ([from, to]: readonly [number, number], wave = 0) =>
        Math.max(0, Math.round(from + (to - from) * share + wave * Math.sin(index / 5)));
      const [standing, mending] = [between(stops, 1), between(mends, 1.5)];
      return {
        day: new Date(now.getTime() - ago * DAY_MILLIS).toISOString().slice(0, 10),
        targetId,
        pages,
        out: 0,
        sent: 0,
        stops: standing,
        mends: mending,
        words: Math.round((standing + mending) * 0.55),
        rights: Math.round(standing * 0.25),
        bytes: null,
      };
    }),
  );
  await db.insert(reportDays).ignore().values(rows);
}
