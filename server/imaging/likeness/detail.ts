import sharp from 'sharp';
import type { CutFormat } from '#core/media/formats.ts';
import type { Recipe } from '#core/media/recipe.ts';
import type { Context } from '../../context.ts';
import { originalKey } from '../../storage/storage.ts';
import { makeCut } from '../cut.ts';
import type { CutSource } from '../cut-store.ts';

const WIDE_PX = 340;
const HIGH_PX = 230;

/** The part of a cut round a place, at the cut's own pixels, as PNG: nothing is lost on the way to the eye. */
export async function detailOf(
  context: Context,
  source: CutSource,
  cut: {
    readonly recipe: Recipe;
    readonly width: number;
    readonly format: CutFormat;
    readonly quality: number;
  },
  at: { readonly x: number; readonly y: number },
): Promise<Buffer> {
  const original = { width: source.widthPx, height: source.heightPx };
  const bytes = await context.storage.withFile(originalKey(source.sha256), (path) =>
    makeCut(path, { ...cut, original, animated: false }),
  );
  const { width, height } = await sharp(bytes).metadata();
  const [wide, high] = [Math.min(WIDE_PX, width), Math.min(HIGH_PX, height)];
  const start = (share: number, whole: number, part: number) =>
    Math.round(Math.min(Math.max(share * whole - part / 2, 0), whole - part));
  return sharp(bytes)
    .extract({ left: start(at.x, width, wide), top: start(at.y, height, high), width: wide, height: high })
    .png({ compressionLevel: 6 })
    .toBuffer();
}
