import { eq, like, or } from 'drizzle-orm';
import { nextFree } from '#core/naming/clash.ts';
import type { Queries } from '../db/connection.ts';
import { assets, namesOut, settings } from '../db/schema.ts';

/** The row that is locked while a name is given. */
const NAMING = 'naming';

/**
 * Makes this transaction the only one that gives names until it ends: of many pieces that are named at once, all would
 * be given the same free name.
 */
export async function nameInTurn(tx: Queries): Promise<void> {
  await tx.select().from(settings).where(eq(settings.name, NAMING)).for('update');
}

/**
 * The wished name, or the next free one: no other piece has it, and none went out under it. Only names that differ in
 * the number at their end are asked for, which is all that `nextFree` looks at.
 */
export async function freeStemLike(db: Queries, wished: string, assetId?: string): Promise<string> {
  const start = wished.slice(0, 74);
  const [held, out] = await Promise.all([
    db
      .select({ stem: assets.stem, id: assets.id })
      .from(assets)
      .where(or(eq(assets.stem, wished), like(assets.stem, `${start}%`))),
    db
      .select({ stem: namesOut.stem, id: namesOut.assetId })
      .from(namesOut)
      .where(or(eq(namesOut.stem, wished), like(namesOut.stem, `${start}%`))),
  ]);
  const taken = new Set([...held, ...out].filter(({ id }) => id !== assetId).map(({ stem }) => stem));
  return nextFree(wished, (stem) => taken.has(stem));
}
