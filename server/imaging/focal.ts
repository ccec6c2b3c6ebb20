import sharp from 'sharp';
import type { Point } from '#core/media/crop.ts';
import { WHOLE } from '#core/media/recipe.ts';
import type { Context } from '../context.ts';
import { VIEW_PX } from '../media/screen-px.ts';
import { type CutSource, ensureCut } from './cut-store.ts';
import { SCREEN_QUALITY } from './first-look.ts';

/** A small square leaves the proposal no room but the place that draws the eye. */
const SQUARE_PX = 64;

/**
 * Where the computer would put the focal point, in fractions of the original: the place of most skin, saturation and
 * edges (libvips, "attention"). A proposal; a person sets it.
 */
export async function proposeFocal(context: Context, source: CutSource): Promise<Point> {
  const width = Math.min(VIEW_PX, source.widthPx);
  const cut = await ensureCut(context, source, WHOLE, width, 'webp', SCREEN_QUALITY);
  const bytes = await context.storage.read(cut.key);
  const { info } = await sharp(bytes)
    .resize({ width: SQUARE_PX, height: SQUARE_PX, fit: 'cover', position: sharp.strategy.attention })
    .toBuffer({ resolveWithObject: true });
  const seen = await sharp(bytes).metadata();
  const share = (place: number | undefined, length: number) =>
    place === undefined || length === 0 ? 0.5 : Math.min(1, Math.max(0, place / length));
  return { x: share(info.attentionX, seen.width), y: share(info.attentionY, seen.height) };
}
