import { and, asc, eq, gt, lt, ne } from 'drizzle-orm';
import type * as v from 'valibot';
import type { AtPage, SittingSchema } from '#api/pages.ts';
import type { Context } from '../context.ts';
import { pages, people, sittings } from '../db/schema.ts';
import { notFound } from '../problem.ts';

/** Windows say every 5 seconds that they are there; who has been silent for four of these is gone. */
const GONE_AFTER_MILLIS = 20_000;

/** Says where somebody is on a page, and answers who else is there; other windows of the same person are not others. */
export async function sitAt(
  { db }: Context,
  pageId: string,
  sitting: v.InferOutput<typeof SittingSchema>,
  personId: string,
  now: Date,
): Promise<AtPage> {
  const [page] = await db.select({ version: pages.version }).from(pages).where(eq(pages.id, pageId));
  if (!page) throw notFound('This page');
  const stale = new Date(now.getTime() - GONE_AFTER_MILLIS);
  await db.delete(sittings).where(lt(sittings.seenAt, stale));
  // A window is only moved, or closed, by whom it is of.
  const isOwn = and(eq(sittings.id, sitting.id), eq(sittings.personId, personId));
  if (sitting.left) await db.delete(sittings).where(isOwn);
  else {
    const place = { pageId, block: sitting.block, seenAt: now };
    const [known] = await db.select({ id: sittings.id }).from(sittings).where(eq(sittings.id, sitting.id));
    if (known) await db.update(sittings).set(place).where(isOwn);
    else
      await db
        .insert(sittings)
        .ignore()
        .values({ id: sitting.id, personId, ...place });
  }
  const others = await db
    .select({ id: sittings.id, name: people.name, block: sittings.block })
    .from(sittings)
    .innerJoin(people, eq(people.id, sittings.personId))
    .where(and(eq(sittings.pageId, pageId), ne(sittings.personId, personId), gt(sittings.seenAt, stale)))
    .orderBy(asc(people.name), asc(sittings.id))
    .limit(MOST_OTHERS);
  return { version: page.version, others };
}

const MOST_OTHERS = 50;
