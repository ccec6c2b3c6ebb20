import { and, eq, inArray, isNull, or } from 'drizzle-orm';
import { unionAll } from 'drizzle-orm/mysql-core';
import type { Reader } from '#api/people.ts';
import { ALIKE_BITS, bitsApart, type LookHash, nearQuarters, quartersOf } from '#core/media/lookalike.ts';
import type { Context } from '../context.ts';
import { held, keptApart, perceptualHashes } from '../db/schema.ts';
import type { AssetRow } from './present.ts';
import { seenBy } from './seen.ts';

interface Alike {
  readonly assetId: string;
  readonly bitsApart: number;
}

/**
 * The pieces that look like a hash, nearest first: each quarter is looked up with its 17 near spellings, and the few
 * that answer are compared whole (see `nearQuarters` for why none is missed).
 */
export async function alikeTo(context: Context, hash: LookHash): Promise<readonly Alike[]> {
  const [first, second, third, fourth] = quartersOf(hash);
  const columns = [
    [perceptualHashes.first, first],
    [perceptualHashes.second, second],
    [perceptualHashes.third, third],
    [perceptualHashes.fourth, fourth],
  ] as const;
  const [one, two, three, four] = columns.map(([column, quarter]) =>
    context.db
      .select({ assetId: perceptualHashes.assetId, hash: perceptualHashes.hash })
      .from(perceptualHashes)
      .where(inArray(column, [...nearQuarters(quarter)])),
  );
  if (!one || !two || !three || !four) return [];
  const rows = await unionAll(one, two, three, four);
  const near = new Map<string, number>();
  for (const row of rows) {
    const apart = bitsApart(row.hash, hash);
    if (apart <= ALIKE_BITS) near.set(row.assetId, apart);
  }
  return [...near]
    .map(([assetId, apart]) => ({ assetId, bitsApart: apart }))
    .sort((a, b) => a.bitsApart - b.bitsApart);
}

export interface AlikeRow {
  readonly row: AssetRow;
  readonly bitsApart: number;
}

const SHOWN = 6;

/** Pieces on the shelf that look like a hash, as rows. */
export async function alikeRows(
  context: Context,
  hash: LookHash,
  reader: Reader,
  besides?: string,
): Promise<readonly AlikeRow[]> {
  const near = (await alikeTo(context, hash)).filter(({ assetId }) => assetId !== besides);
  if (near.length === 0) return [];
  const rows = await context.db
    .select()
    .from(held)
    .where(
      and(
        inArray(
          held.id,
          near.map(({ assetId }) => assetId),
        ),
        isNull(held.deletedAt),
        isNull(held.foldedInto),
        seenBy(context, reader, held),
      ),
    );
  return near
    .flatMap(({ assetId, bitsApart: apart }) => {
      const row = rows.find(({ id }) => id === assetId);
      return row ? [{ row, bitsApart: apart }] : [];
    })
    .slice(0, SHOWN);
}

/** The pieces that look like one on the shelf, without those that somebody decided to keep beside it. */
export async function lookalikesOf(
  context: Context,
  assetId: string,
  reader: Reader,
): Promise<readonly AlikeRow[]> {
  const [look] = await context.db
    .select({ hash: perceptualHashes.hash })
    .from(perceptualHashes)
    .where(eq(perceptualHashes.assetId, assetId));
  if (!look) return [];
  const alike = await alikeRows(context, look.hash, reader, assetId);
  if (alike.length === 0) return [];
  const decided = await context.db
    .select()
    .from(keptApart)
    .where(or(eq(keptApart.oneId, assetId), eq(keptApart.otherId, assetId)));
  const apart = new Set(decided.flatMap(({ oneId, otherId }) => [oneId, otherId]));
  return alike.filter(({ row }) => !apart.has(row.id));
}

/** Somebody decided to keep both of two lookalikes: they are no longer shown as such. */
export async function keepApart(
  context: Context,
  one: string,
  other: string,
  personId: string,
  now: Date,
): Promise<void> {
  const [oneId, otherId] = [one, other].sort();
  if (!oneId || !otherId) return;
  await context.db.insert(keptApart).ignore().values({ oneId, otherId, personId, at: now });
}

export async function noLongerApart(context: Context, one: string, other: string): Promise<void> {
  const [oneId, otherId] = [one, other].sort();
  if (!oneId || !otherId) return;
  await context.db.delete(keptApart).where(and(eq(keptApart.oneId, oneId), eq(keptApart.otherId, otherId)));
}
