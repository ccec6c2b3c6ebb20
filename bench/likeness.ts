import sharp from 'sharp';
import { WHOLE } from '#core/media/recipe.ts';
import { encode } from '../server/imaging/encode.ts';
import { measureCurve } from '../server/imaging/likeness/curve.ts';
import { median, millis, say, times } from './measure.ts';
import { type BenchWorld, paintOriginals } from './world.ts';

const SIZE = { width: 6000, height: 4000 };
const WIDTH = 1440;

/** The likeness curve of one cut in three formats, against one AVIF of it. */
export async function benchLikeness({ folder }: BenchWorld): Promise<void> {
  const [path] = await paintOriginals(folder, 1, SIZE);
  if (!path) throw new Error('Nothing was painted.');
  const raw = await sharp(path).resize({ width: WIDTH }).raw().toBuffer({ resolveWithObject: true });
  const pixels = { raw: { width: raw.info.width, height: raw.info.height, channels: raw.info.channels } };
  const one = await median(
    () => encode(sharp(raw.data, pixels), { format: 'avif', quality: 80, fineColour: false }).toBuffer(),
    3,
  );
  const curve = await median(
    () =>
      measureCurve({
        path,
        original: SIZE,
        recipe: WHOLE,
        width: WIDTH,
        wanted: 0.985,
        formats: (['avif', 'webp', 'jpeg'] as const).map((format) => ({
          format,
          quality: null,
        })),
      }),
    3,
  );
  say(
    'the likeness curve of a cut in three formats, against one AVIF of it (aim: at most 4)',
    `${times(curve, one)} (${millis(curve)})`,
  );
}
