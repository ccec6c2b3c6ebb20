import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { cuts, documents, films, pictures, publicFiles, removals } from '../db/schema.ts';
import { allMade, madeKey } from '../films/made-store.ts';

const AT_A_TIME = 2000;

/** Writes down files to be removed, in the transaction that takes their last name away. */
export async function orderRemovals(db: Queries, keys: readonly string[], now: Date): Promise<void> {
  for (let at = 0; at < keys.length; at += AT_A_TIME)
    await db
      .insert(removals)
      .ignore()
      .values(keys.slice(at, at + AT_A_TIME).map((key) => ({ key, at: now })));
}

/**
 * Removes the files that were written down, and answers how many. Each is locked while it is: a file that comes in anew
 * at that moment waits with its row, and is stored again afterwards (see `takeIn`). Killed, the next one goes on.
 */
export async function carryOutRemovals(context: Context): Promise<number> {
  const { storage, db } = context;
  const rows = await db
    .select({ key: removals.key })
    .from(removals)
    .orderBy(asc(removals.at))
    .limit(AT_A_TIME);
  let removed = 0;
  for (const { key } of rows)
    await db.transaction(async (tx) => {
      const [row] = await tx
        .select()
        .from(removals)
        .where(eq(removals.key, key))
        .for('update', { skipLocked: true });
      if (!row) return;
      if (!(await isNeeded(tx, key))) {
        await storage.remove(key);
        removed += 1;
      }
      await tx.delete(removals).where(eq(removals.key, key));
    });
  return removed;
}

/** Whether a row names a file still, or again. */
async function isNeeded(tx: Queries, key: string): Promise<boolean> {
  const [, folder, sha256, recipe, width, quality, format] = KEY.exec(key) ?? [];
  if (!sha256) return false;
  if (folder === 'originals') return isOriginalNeeded(tx, sha256);
  if (folder === 'sent') return isServed(tx, sha256);
  if (folder === 'films') return isMadeNeeded(tx, sha256, key);
  const [cut] = await tx
    .select({ width: cuts.widthPx })
    .from(cuts)
    .innerJoin(pictures, eq(pictures.assetId, cuts.assetId))
    .where(
      and(
        eq(pictures.sha256, sha256),
        eq(cuts.recipe, recipe ?? ''),
        eq(cuts.widthPx, Number(width)),
        eq(cuts.format, format ?? ''),
        eq(cuts.quality, Number(quality)),
      ),
    );
  return cut !== undefined;
}

async function isOriginalNeeded(tx: Queries, sha256: string): Promise<boolean> {
  const shown = await tx
    .select({ id: pictures.assetId })
    .from(pictures)
    .where(eq(pictures.sha256, sha256))
    .limit(1);
  if (shown.length > 0) return true;
  const filed = await tx
    .select({ id: documents.assetId })
    .from(documents)
    .where(eq(documents.sha256, sha256))
    .limit(1);
  if (filed.length > 0) return true;
  const played = await tx.select({ id: films.assetId }).from(films).where(eq(films.sha256, sha256)).limit(1);
  return played.length > 0;
}

async function isMadeNeeded(tx: Queries, sha256: string, key: string): Promise<boolean> {
  const rows = await tx.select({ made: films.made }).from(films).where(eq(films.sha256, sha256));
  return rows.some((row) => allMade(row).some((one) => madeKey(sha256, one) === key));
}

async function isServed(tx: Queries, sha256: string): Promise<boolean> {
  const isIt = and(eq(publicFiles.sha256, sha256), isNull(publicFiles.goneAt));
  const [one] = await tx.select({ name: publicFiles.name }).from(publicFiles).where(isIt).limit(1);
  return one !== undefined;
}

/** The keys that `originalKey`, `sentKey`, `filmKey` and `cutKey` make. */
const KEY =
  /^(originals|sent|films|cuts)\/[0-9a-f]{2}\/([0-9a-f]{64})(?:\/([^/]+)\/(\d+)(?:-q(\d+))?\.([a-z0-9]+))?$/;
