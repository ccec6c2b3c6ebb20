import { and, desc, eq, gt, inArray, notInArray } from 'drizzle-orm';
import * as v from 'valibot';
import type { Person } from '#api/people.ts';
import { type KeyedNotification, ofErrand, ofFailure } from '#core/notify/notification.ts';
import type { Context } from '../context.ts';
import { deliveries, jobs } from '../db/schema.ts';
import { TAKE_AWAY } from '../deliver/take-away.ts';
import { withGiven } from '../desk/given.ts';
import { openErrands, pagesOf } from '../desk/open-errands.ts';
import { GATHER } from '../gather/taking.ts';
import { BRING_IN } from '../inherited/bring-in.ts';
import { READ_INHERITED } from '../inherited/look.ts';
import { BUY } from '../rights/purchases.ts';
import { RUN } from '../runs/work.ts';

const DAY_MILLIS = 24 * 60 * 60 * 1000;
const FAILED_DAYS = 7;
const MOST_FAILED = 50;

/** All that a person could be told at this moment. */
export async function newsFor(
  context: Context,
  person: Person,
  now: Date,
): Promise<readonly KeyedNotification[]> {
  const { wholes } = await pagesOf(context, person);
  const errands = await withGiven(context, await openErrands(context, wholes, person), person);
  return [
    ...errands.flatMap((errand) => ofErrand(errand, person.id) ?? []),
    ...(await failures(context, person, now)),
  ];
}

/** Work that a person began and that failed. Runs and purchases that halt wait on the Desk. */
async function failures({ db }: Context, person: Person, now: Date): Promise<readonly KeyedNotification[]> {
  const rows = await db
    .select()
    .from(jobs)
    .where(
      and(
        eq(jobs.createdBy, person.id),
        eq(jobs.state, 'failed'),
        notInArray(jobs.kind, [RUN, BUY]),
        gt(jobs.createdAt, new Date(now.getTime() - FAILED_DAYS * DAY_MILLIS)),
      ),
    )
    .orderBy(desc(jobs.createdAt), desc(jobs.id))
    .limit(MOST_FAILED);
  if (rows.length === 0) return [];
  const sent = await db
    .select({ jobId: deliveries.jobId, pageId: deliveries.pageId })
    .from(deliveries)
    .where(
      inArray(
        deliveries.jobId,
        rows.map(({ id }) => id),
      ),
    );
  const pageOf = new Map(sent.map(({ jobId, pageId }) => [jobId, pageId]));
  return rows.toReversed().map((row) => ofFailure({ ...row, path: pathOf(row, pageOf.get(row.id)) }));
}

const OfPageSchema = v.object({ pageId: v.string() });

/** Where work is done again. */
function pathOf({ kind, input }: typeof jobs.$inferSelect, sentPage: string | undefined): string {
  if (sentPage) return `/pages/${sentPage}/sent`;
  if (kind === GATHER) return '/gather';
  if (kind === READ_INHERITED || kind === BRING_IN) return '/pages/bring-in';
  const page = kind === TAKE_AWAY ? v.safeParse(OfPageSchema, input) : null;
  return page?.success ? `/pages/${page.output.pageId}` : '/';
}
