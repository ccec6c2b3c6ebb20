import { eq, like, or } from 'drizzle-orm';
import { nextFree } from '#core/naming/clash.ts';
import type { Queries } from '../db/connection.ts';
import { assets } from '../db/schema.ts';

/** Names that differ only in the number at their end, which is all that `nextFree` looks at. */
export async function freeStemLike(db: Queries, wished: string): Promise<string> {
  const start = wished.slice(0, 74);
  const rows = await db
    .select({ stem: assets.stem })
    .from(assets)
    .where(or(eq(assets.stem, wished), like(assets.stem, `${start}%`)));
  const taken = new Set(rows.map((row) => row.stem));
  return nextFree(wished, (stem) => taken.has(stem));
}
