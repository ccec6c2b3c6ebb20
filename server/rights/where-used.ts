import { and, eq, isNull, type SQL, sql } from 'drizzle-orm';
import type { Person } from '#api/people.ts';
import type { WhereUsed, WhereUsedQuery } from '#api/rights.ts';
import type { Context } from '../context.ts';
import { embeds, held, pages, placements, targets } from '../db/schema.ts';
import { maybeRules } from '../rules/store.ts';
import { seenBy } from '../shelf/seen.ts';
import { isOut } from './ledger.ts';

const MOST_PAGES = 500;

/** On which pages stands what carries a licence, comes from a host, or was brought in by somebody: as far as whoever asks may see it. */
export async function whereUsed(
  context: Context,
  { of, value }: WhereUsedQuery,
  person: Person,
): Promise<WhereUsed> {
  const { db } = context;
  const asked = and(whatIs(of, value), isNull(held.deletedAt), seenBy(context, person, held));
  const [counted] = await db.select({ pieces: sql<number>`count(*)` }).from(held).where(asked);
  const rows = await db
    .select({
      id: pages.id,
      title: pages.title,
      rules: targets.rules,
      isOut: isOut(),
      pieces: sql<number>`count(distinct ${placements.assetId})`,
    })
    .from(placements)
    .innerJoin(pages, eq(pages.id, placements.pageId))
    .innerJoin(targets, eq(targets.id, pages.targetId))
    .innerJoin(held, eq(held.id, placements.assetId))
    .where(asked)
    .groupBy(pages.id, pages.title, targets.id)
    .orderBy(pages.title, pages.id)
    .limit(MOST_PAGES);
  return {
    pieces: Number(counted?.pieces ?? 0),
    pages: rows.map(({ rules, ...page }) => ({
      ...page,
      pieces: Number(page.pieces),
      isOut: Boolean(page.isOut),
      target: maybeRules(rules)?.name ?? '',
    })),
  };
}

function whatIs(of: WhereUsedQuery['of'], value: string): SQL {
  switch (of) {
    case 'licence':
      return eq(held.licence, value);
    case 'person':
      return eq(held.createdBy, value);
    case 'host':
      return sql`exists (select 1 from ${embeds} where ${embeds.assetId} = ${held.id} and json_value(${embeds.embed}, '$.embed.host') = ${value})`;
  }
}
