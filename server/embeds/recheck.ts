import { and, asc, eq, isNull, lt, or, sql } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { isDuplicate } from '../db/failures.ts';
import { assets, embeds } from '../db/schema.ts';
import { readTargets } from '../rules/store.ts';
import { readHosts } from './hosts.ts';
import { embedKey, framingByOrigin } from './keep.ts';
import { lookAt } from './look.ts';
import { readSaved } from './saved.ts';

const DAY_MILLIS = 24 * 60 * 60 * 1000;
const AT_ONCE = 10;
const PATIENCE_MILLIS = 60_000;

/**
 * Asks the hosts of embeds again that were asked over a day ago: what is gone, private or no longer to be framed is a
 * finding on its pages from then on. Answers how many were asked. A host that does not answer just now changes nothing.
 */
export async function recheckEmbeds(context: Context, now: Date): Promise<number> {
  const askedAt = sql<string>`json_value(${embeds.embed}, '$.askedAt')`;
  const before = new Date(now.getTime() - DAY_MILLIS).toISOString();
  const rows = await context.db
    .select({ id: embeds.assetId, embed: embeds.embed })
    .from(embeds)
    .innerJoin(assets, eq(assets.id, embeds.assetId))
    .where(and(isNull(assets.deletedAt), or(lt(askedAt, before), isNull(askedAt))))
    .orderBy(asc(askedAt))
    .limit(AT_ONCE);
  if (rows.length === 0) return 0;
  const [hosts, targets] = await Promise.all([readHosts(context), readTargets(context)]);
  for (const row of rows) {
    const saved = readSaved(row.embed);
    if (!saved) continue;
    const look = await lookAt(
      context,
      { embed: saved.embed, hosts, targets },
      AbortSignal.timeout(PATIENCE_MILLIS),
    );
    const heard = Object.entries(framingByOrigin(look, targets)).filter(([, { kind }]) => kind !== 'silent');
    const { visibility, captions } = look.embed.facts;
    const next = {
      ...saved,
      // Only what the world says anew; what people said of it stays.
      embed: { ...saved.embed, facts: { ...saved.embed.facts, visibility, captions } },
      framing: { ...saved.framing, ...Object.fromEntries(heard) },
      askedAt: now.toISOString(),
    };
    await context.db
      .update(embeds)
      .set({ embed: next })
      .where(and(eq(embeds.assetId, row.id), sql`${askedAt} <=> ${saved.askedAt}`));
    // Too, since by what a thing is known again has changed over time; where another stands for it already it stays as it is.
    await context.db
      .update(assets)
      .set({ identity: embedKey(next.embed) })
      .where(eq(assets.id, row.id))
      .catch((error: unknown) => {
        if (!isDuplicate(error)) throw error;
      });
  }
  return rows.length;
}
