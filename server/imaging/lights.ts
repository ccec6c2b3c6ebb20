import { LRUCache } from 'lru-cache';
import sharp from 'sharp';
import type { Lights } from '#core/media/over-contrast.ts';
import { WHOLE } from '#core/media/recipe.ts';
import type { Context } from '../context.ts';
import { THUMB_PX } from '../media/screen-px.ts';
import { type CutSource, ensureCut } from './cut-store.ts';
import { SCREEN_QUALITY } from './first-look.ts';

const SIDE = 32;
const GROUND = '#ffffff';

/** As many as fit into a few MB; what is not here is read again. */
const cache = new LRUCache<string, Lights>({ max: 200 });

/** A piece as it came, as a few px, read from its small picture, which is always there. */
export async function lightsOf(context: Context, source: CutSource): Promise<Lights> {
  const kept = cache.get(source.sha256);
  if (kept) return kept;
  const width = Math.min(THUMB_PX, source.widthPx);
  const cut = await ensureCut(context, source, WHOLE, width, 'webp', SCREEN_QUALITY);
  const { data } = await sharp(await context.storage.read(cut.key))
    .flatten({ background: GROUND })
    .resize({ width: SIDE, height: SIDE, fit: 'fill' })
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const lights = { columns: SIDE, rows: SIDE, rgb: [...data] };
  cache.set(source.sha256, lights);
  return lights;
}
