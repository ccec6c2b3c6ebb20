import sharp from 'sharp';
import { LIKENESS_TOLERANCE, type LossyFormat } from '#core/media/alike.ts';
import { likenessOf } from '#core/media/likeness.ts';
import { WHOLE } from '#core/media/recipe.ts';
import { foundQuality } from '../server/imaging/alike.ts';
import { makeCut, prepared } from '../server/imaging/cut.ts';
import { encode } from '../server/imaging/encode.ts';
import { imageOf, lumaOfPixels, lumaOn, pixelsOf } from '../server/imaging/pixels.ts';
import { say, timeOf, times } from './measure.ts';
import { benchShift } from './shift.ts';
import { type BenchWorld, grainedOriginals } from './world.ts';

const SIZE = { width: 3000, height: 2000 };
const WIDTHS = [360, 720, 1080, 1440];
const FORMATS: readonly LossyFormat[] = ['avif', 'webp', 'jpeg'];
const WANTED = 985;

/** What readers are sent: how near each written file is to the likeness that is wanted, what it weighs, and what finding it costs. */
export async function benchReaders({ folder }: BenchWorld): Promise<void> {
  const files: { readonly isNear: boolean; readonly over: number }[] = [];
  let [ladders, fixed] = [0, 0];
  for (const path of await grainedOriginals(folder, 6, SIZE))
    for (const width of WIDTHS) {
      const order = { original: SIZE, recipe: WHOLE, width, animated: false };
      const pixels = await pixelsOf(await prepared(path, order));
      const untouched = await lumaOfPixels(pixels);
      for (const format of FORMATS) {
        let file: Buffer = Buffer.alloc(0);
        ladders += await timeOf(async () => {
          file = await makeCut(path, { ...order, format, quality: WANTED });
        });
        const { writing } = await foundQuality(pixels, format, WANTED / 1000);
        const { quality, fineColour } = writing;
        fixed += await timeOf(() => makeCut(path, { ...order, format, quality }));
        const likeness = async (bytes: Buffer) => likenessOf(untouched, await lumaOn(sharp(bytes))).mean;
        let least = file.length;
        for (let lower = quality - 1; lower > 0; lower -= 1) {
          const one = await encode(imageOf(pixels), { format, quality: lower, fineColour }).toBuffer();
          if ((await likeness(one)) < WANTED / 1000 - LIKENESS_TOLERANCE) break;
          least = Math.min(least, one.length);
        }
        const isNear = Math.abs((await likeness(file)) - WANTED / 1000) <= LIKENESS_TOLERANCE;
        files.push({ isNear, over: file.length / least });
      }
    }
  const share = (count: number) => `${Math.round((100 * count) / files.length)} of 100`;
  say(
    `files within ${LIKENESS_TOLERANCE} of the likeness that is wanted (aim: 95 of 100)`,
    `${share(files.filter(({ isNear }) => isNear).length)}, of ${files.length}`,
  );
  say(
    'files at most 1.15 times the smallest that is (aim: 95 of 100)',
    share(files.filter(({ over }) => over <= 1.15).length),
  );
  say(
    'making ladders, against making them at the very qualities that are found (aim: at most 1.6)',
    times(ladders, fixed),
  );
  await benchShift();
}
