import { eq, isNotNull } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { films, held } from '../db/schema.ts';
import { recipeOf } from './made-store.ts';
import { orderMaking } from './order.ts';

/**
 * Orders all films to be made again whose files are not there, as after a backup, which holds only what came. Until then they go out
 * as they came, or, where something is left out of them, not at all. Answers how many.
 */
export async function makeAllAgain(context: Context, now: Date): Promise<number> {
  const rows = await context.db.select().from(held).where(isNotNull(held.filmSha256));
  for (const row of rows)
    await context.db.transaction(async (tx) => {
      await tx.update(films).set({ made: null }).where(eq(films.assetId, row.id));
      const title = row.label.title || row.stem;
      const making = { assetId: row.id, title, recipe: recipeOf(row), personId: row.createdBy };
      await orderMaking(tx, making, now);
    });
  return rows.length;
}
