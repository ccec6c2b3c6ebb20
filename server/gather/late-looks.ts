import { and, desc, eq, getViewSelectedFields, isNull } from 'drizzle-orm';
import sharp from 'sharp';
import { LOOK_EDGE_PX, lookHash, quartersOf } from '#core/media/lookalike.ts';
import { WHOLE } from '#core/media/recipe.ts';
import type { Context } from '../context.ts';
import { held, perceptualHashes } from '../db/schema.ts';
import { ensureCut } from '../imaging/cut-store.ts';
import { SCREEN_QUALITY } from '../imaging/first-look.ts';
import { THUMB_PX } from '../media/screen-px.ts';

const AT_A_TIME = 40;

/** Looks at pieces that came in before looks were kept, a few at a time, newest first. Answers how many. */
export async function lookLate(context: Context): Promise<number> {
  const rows = await context.db
    .select({ asset: getViewSelectedFields(held) })
    .from(held)
    .leftJoin(perceptualHashes, eq(perceptualHashes.assetId, held.id))
    .where(and(eq(held.kind, 'picture'), isNull(perceptualHashes.assetId)))
    .orderBy(desc(held.createdAt))
    .limit(AT_A_TIME);
  for (const { asset } of rows) {
    const width = Math.min(THUMB_PX, asset.widthPx);
    const cut = await ensureCut(context, asset, WHOLE, width, 'webp', SCREEN_QUALITY);
    const grey = await sharp(await context.storage.read(cut.key))
      .flatten({ background: '#ffffff' })
      .greyscale()
      .resize(LOOK_EDGE_PX, LOOK_EDGE_PX, { fit: 'fill' })
      .raw()
      .toBuffer();
    const hash = lookHash(new Uint8Array(grey));
    const [first, second, third, fourth] = quartersOf(hash);
    await context.db
      .insert(perceptualHashes)
      .ignore()
      .values({ assetId: asset.id, hash, first, second, third, fourth });
  }
  return rows.length;
}
