import { and, asc, eq, exists, inArray, isNotNull, isNull, lt, or } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { assets, held, placements, provenance, sourceAsks } from '../db/schema.ts';
import { askPage } from '../gather/page-says.ts';
import { settleDifferences } from './differences.ts';

const WEEK_MILLIS = 7 * 24 * 60 * 60 * 1000;
const AT_ONCE = 5;
const PATIENCE_MILLIS = 30_000;

/**
 * Reads the pages again that pieces in use came from, each once a week and a few at a time: a licence that was withdrawn or a
 * maker who was corrected there is told. Answers how many were asked. A page that does not answer just now changes nothing.
 */
export async function askSources(context: Context, now: Date): Promise<number> {
  const { db } = context;
  const weekAgo = new Date(now.getTime() - WEEK_MILLIS);
  const isUsed = exists(
    db.select({ id: placements.assetId }).from(placements).where(eq(placements.assetId, assets.id)),
  );
  const due = await db
    .select({ id: assets.id })
    .from(assets)
    .innerJoin(provenance, eq(provenance.assetId, assets.id))
    .leftJoin(sourceAsks, eq(sourceAsks.assetId, assets.id))
    .where(
      and(
        isNull(assets.deletedAt),
        eq(assets.kind, 'picture'),
        isNotNull(provenance.pageAddress),
        or(lt(sourceAsks.askedAt, weekAgo), and(isNull(sourceAsks.askedAt), lt(provenance.at, weekAgo))),
        isUsed,
      ),
    )
    .groupBy(assets.id, sourceAsks.askedAt)
    .orderBy(asc(sourceAsks.askedAt), asc(assets.id))
    .limit(AT_ONCE);
  if (due.length === 0) return 0;
  const rows = await db
    .select()
    .from(held)
    .where(
      inArray(
        held.id,
        due.map(({ id }) => id),
      ),
    );
  for (const row of rows) await askOne(context, row, now);
  return rows.length;
}

async function askOne(context: Context, row: typeof held.$inferSelect, now: Date): Promise<void> {
  const { db } = context;
  const comings = await db
    .select()
    .from(provenance)
    .where(and(eq(provenance.assetId, row.id), isNotNull(provenance.pageAddress)))
    .orderBy(asc(provenance.at));
  const latest = comings.at(-1);
  if (!latest?.pageAddress) return;
  const [known] = await db.select().from(sourceAsks).where(eq(sourceAsks.assetId, row.id));
  const { said } = await askPage(
    context,
    { page: latest.pageAddress, picture: latest.address },
    AbortSignal.timeout(PATIENCE_MILLIS),
  );
  // A source that was searched said nothing by its page: what that says first is what is compared from then on.
  const ofPage = latest.said.filter(({ by }) => by !== 'file' && by !== 'collection' && by !== 'agency');
  const before = known?.before ?? (ofPage.length > 0 ? ofPage : (said ?? []));
  const asked = { askedAt: now, before: [...before], now: [...(said ?? known?.now ?? before)] };
  await db.transaction(async (tx) => {
    await tx
      .insert(sourceAsks)
      .values({ assetId: row.id, ...asked })
      .onDuplicateKeyUpdate({ set: asked });
    await settleDifferences(tx, row, now);
  });
}
