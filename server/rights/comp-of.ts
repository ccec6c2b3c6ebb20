import { and, desc, eq } from 'drizzle-orm';
import { isUnderMark } from '#core/media/under-mark.ts';
import { isSameShape } from '#core/page/replacing.ts';
import type { Context } from '../context.ts';
import { held } from '../db/schema.ts';
import { lightsOf } from '../imaging/lights.ts';
import type { AssetRow } from '../shelf/present.ts';
import { standing } from '../shelf/put-away.ts';

/** So many comps wait to be bought; who has more looks for the rest by hand. */
const MOST_COMPS = 200;

/** The comp whose original a picture is by its looks, the newest first; null where none is. */
export async function compOf(context: Context, row: AssetRow): Promise<AssetRow | null> {
  if (row.kind !== 'picture' || row.licence === 'comp') return null;
  const comps = await context.db
    .select()
    .from(held)
    .where(and(eq(held.licence, 'comp'), eq(held.kind, 'picture'), standing(context, 'house', held)))
    .orderBy(desc(held.createdAt))
    .limit(MOST_COMPS);
  const shaped = comps.filter((comp) => isSameShape(sizeOf(comp), sizeOf(row)));
  if (shaped.length === 0) return null;
  const lights = await lightsOf(context, row);
  for (const comp of shaped) if (isUnderMark(await lightsOf(context, comp), lights)) return comp;
  return null;
}

const sizeOf = ({ widthPx, heightPx }: AssetRow) => ({ width: widthPx, height: heightPx });
