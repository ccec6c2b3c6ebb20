import { copyFile } from 'node:fs/promises';
import { join } from 'node:path';
import pLimit from 'p-limit';
import sharp from 'sharp';
import { WHOLE } from '#core/media/recipe.ts';
import { FROM_OWN_MACHINE } from '../server/gather/incoming.ts';
import { takeIn } from '../server/gather/take-in.ts';
import { makeCut } from '../server/imaging/cut.ts';
import { millis, peakMemory, say, timeOf, times } from './measure.ts';
import { type BenchWorld, grainedOriginals, paintOriginals } from './world.ts';

const AT_ONCE = 2;
const LARGE = { width: 6000, height: 4000 };
const MIDDLE = { width: 4243, height: 2828 };

/** Taking in and cutting, against sharp by itself doing the same decoding, resizing and encoding. */
export async function benchPictures(world: BenchWorld): Promise<void> {
  const [first = '', ...originals] = await paintOriginals(world.folder, 21, LARGE);
  // As on a server that runs: the processes that read pictures and metadata are there. Starting them is 2 s, once.
  await takeInOne(world, first, 0);
  await takingIn(world, '20 files of 24 megapixels', originals, 'aim: at most 1.25');
  await cutting(originals);
}

/** As many files as a whole card of a camera; only asked for by name, since painting them takes a while. */
export async function benchMany(world: BenchWorld, count: number): Promise<void> {
  const originals = await grainedOriginals(world.folder, count, MIDDLE);
  await takingIn(world, `${count} files of 12 megapixels`, originals, 'aim: at most 1.25');
}

async function takeInOne({ context, folder }: BenchWorld, path: string, number: number): Promise<void> {
  // As an upload lies there: a file of its own.
  const upload = join(folder, `upload-${number}`);
  await copyFile(path, upload);
  await takeIn(
    context,
    {
      path: upload,
      name: `IMG_${number}.JPG`,
      personId: 'bench',
      folder: '',
      pageId: null,
      origin: FROM_OWN_MACHINE,
    },
    new Date(),
  );
}

async function takingIn(
  world: BenchWorld,
  what: string,
  originals: readonly string[],
  aim: string,
): Promise<void> {
  const bare = await timeOf(() => allOf(originals, bareTakingIn));
  let ours = 0;
  const peak = await peakMemory(async () => {
    ours = await timeOf(() => allOf(originals, (path, number) => takeInOne(world, path, number)));
  });
  say(
    `taking in ${what}, against bare sharp (${aim})`,
    `${times(ours, bare)} (${millis(ours / originals.length)} a file)`,
  );
  say(`most memory of this process while taking them in`, `${peak} MB`);
}

/** The same decoding and resizing with sharp alone: what screens show, the look, the border, the strip. */
async function bareTakingIn(path: string): Promise<void> {
  const { data, info } = await sharp(path)
    .autoOrient()
    .resize({ width: 1600 })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const decoded = () =>
    sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
  const { width, height } = await sharp(path).metadata();
  await Promise.all([
    decoded().webp({ quality: 80, effort: 4 }).toBuffer(),
    decoded().resize({ width: 480 }).webp({ quality: 80, effort: 4 }).toBuffer(),
    decoded().greyscale().resize(32, 32, { fit: 'fill' }).raw().toBuffer(),
    decoded().resize({ width: 400 }).raw().toBuffer(),
    sharp(path)
      .extract({ left: 0, top: Math.floor((height * 0.45) / 8) * 8, width, height: 128 })
      .greyscale()
      .raw()
      .toBuffer(),
  ]);
}

const WIDTHS = [480, 960, 1440];

async function cutting(originals: readonly string[]): Promise<void> {
  const orders = originals.flatMap((path) =>
    WIDTHS.flatMap((width) => (['avif', 'webp', 'jpeg'] as const).map((format) => ({ path, width, format }))),
  );
  const inTurn = pLimit(AT_ONCE);
  const bare = await timeOf(() =>
    Promise.all(
      orders.map(({ path, width, format }) =>
        inTurn(() => {
          const height = Math.round((width * LARGE.height) / LARGE.width);
          const image = sharp(path)
            .autoOrient()
            .resize({ width, height, fit: 'fill', kernel: 'lanczos3' })
            .toColourspace('srgb');
          if (format === 'jpeg')
            return image.flatten({ background: '#fff' }).jpeg({ quality: 80, mozjpeg: true }).toBuffer();
          return format === 'webp'
            ? image.webp({ quality: 78, effort: 4 }).toBuffer()
            : image.avif({ quality: 55, effort: 2 }).toBuffer();
        }),
      ),
    ),
  );
  let ours = 0;
  const quality = { avif: 55, webp: 78, jpeg: 80 };
  const peak = await peakMemory(async () => {
    ours = await timeOf(() =>
      Promise.all(
        orders.map(({ path, width, format }) =>
          inTurn(() =>
            makeCut(path, {
              original: LARGE,
              recipe: WHOLE,
              width,
              format,
              quality: quality[format],
              animated: false,
            }),
          ),
        ),
      ),
    );
  });
  say(
    `making ${orders.length} cuts of 20 pieces, against bare sharp (aim: at most 1.10)`,
    `${times(ours, bare)} (${millis(ours / orders.length)} a cut)`,
  );
  say('most memory of this process while making them (aim: under 700 MB)', `${peak} MB`);
}

/** As many files as a browser sends at once. */
const FILES_AT_ONCE = 3;

async function allOf(
  paths: readonly string[],
  work: (path: string, number: number) => Promise<void>,
): Promise<void> {
  const inTurn = pLimit(FILES_AT_ONCE);
  await Promise.all(paths.map((path, number) => inTurn(() => work(path, number))));
}
