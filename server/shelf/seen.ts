import { and, eq, isNull, ne, not, notInArray, or, type SQL, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/mysql-core';
import { may, maySeePiece, type Reader } from '#api/people.ts';
import type { Context } from '../context.ts';
import { assets, type held } from '../db/schema.ts';
import { notFound } from '../problem.ts';

/** Whoever asks for pieces; `house` is Placard at work by itself, which shows them to nobody. */
export type Asker = Reader | 'house';

type Held = typeof held.$inferSelect;

const hidden = alias(assets, 'hidden');

/**
 * The pieces that somebody may see, as a condition; none for those who see each. Asked as "none of the few that are kept from
 * them", so that the indexes by which the shelf is put in order still hold all that is asked.
 */
export function seenBy(
  { db }: Pick<Context, 'db'>,
  asker: Asker,
  of: typeof assets | typeof held = assets,
): SQL | undefined {
  if (asker === 'house' || may(asker.role, 'decide-rights')) return undefined;
  const isNamed = sql`json_contains(${hidden.label}, ${JSON.stringify(asker.id)}, '$.terms.seenBy.people')`;
  const kept = db
    .select({ id: hidden.id })
    .from(hidden)
    .where(and(eq(hidden.seenBy, 'group'), ne(hidden.createdBy, asker.id), not(isNamed)));
  return notInArray(of.id, kept);
}

/** The pieces that everybody of the house may see: what only a group may see has no words that others are offered. */
export const isForAll = or(isNull(assets.seenBy), ne(assets.seenBy, 'group'));

/** Whether somebody may see a piece. */
export const maySee = (row: Pick<Held, 'label' | 'createdBy'>, asker: Asker): boolean =>
  asker === 'house' || maySeePiece(asker, { label: row.label, createdById: row.createdBy });

/** The piece, where somebody may see it. To others it is as if it were not there. */
export function seen(row: Held | undefined, asker: Asker): Held {
  if (!row || !maySee(row, asker)) throw notFound('This piece');
  return row;
}
