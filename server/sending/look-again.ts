import { and, asc, eq, isNotNull, isNull, lt, or } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { deliveries } from '../db/schema.ts';
import { isNewest } from './deliveries.ts';
import { readBack } from './read-back.ts';

const DAY_MILLIS = 24 * 60 * 60 * 1000;
const AT_ONCE = 5;
const PATIENCE_MILLIS = 60_000;

/**
 * Reads pages that are out back again, each once a day and a few at a time: what a site lost or changed afterwards is told on the
 * Desk. Answers how many were asked.
 */
export async function lookAgain(context: Context, now: Date): Promise<number> {
  const due = await context.db
    .select({ id: deliveries.id })
    .from(deliveries)
    .where(
      and(
        eq(deliveries.state, 'out'),
        isNotNull(deliveries.address),
        or(isNull(deliveries.askedAt), lt(deliveries.askedAt, new Date(now.getTime() - DAY_MILLIS))),
        // The job that sent it reads it back first.
        lt(deliveries.at, new Date(now.getTime() - DAY_MILLIS)),
        isNewest(context.db),
      ),
    )
    .orderBy(asc(deliveries.askedAt))
    .limit(AT_ONCE);
  for (const { id } of due)
    await readBack(
      context,
      id,
      AbortSignal.any([AbortSignal.timeout(PATIENCE_MILLIS), context.ending]),
    ).catch(async (error: unknown) => {
      if (context.ending.aborted) throw error;
      context.log.warn({ err: error, delivery: id }, 'a page that is out could not be read back');
      await context.db.update(deliveries).set({ askedAt: now }).where(eq(deliveries.id, id));
    });
  return due.length;
}
