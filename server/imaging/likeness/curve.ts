import sharp, { type Sharp } from 'sharp';
import type { Size } from '#core/media/dimensions.ts';
import type { CutFormat } from '#core/media/formats.ts';
import { type Likeness, type Luma, likenessOf, lumaOf } from '#core/media/likeness.ts';
import type { Recipe } from '#core/media/recipe.ts';
import { nextQuality, QUALITY_RANGE, type Sample } from '#core/media/smallest.ts';
import { encode, prepared } from '../cut.ts';

export interface MeasuredSample extends Sample {
  readonly worst: Likeness['worst'];
}

/** What is asked of one format: to be searched from a quality on, or measured at just that quality. */
export interface FormatWish {
  readonly format: Exclude<CutFormat, 'png'>;
  readonly first: number;
  readonly isSearched: boolean;
}

export interface CurveOrder {
  readonly path: string;
  /** Size of the original as seen, in px. */
  readonly original: Size;
  readonly recipe: Recipe;
  readonly width: number;
  /** SSIM, 0 to 1. */
  readonly wanted: number;
  readonly formats: readonly FormatWish[];
}

export interface FormatCurve {
  readonly format: FormatWish['format'];
  readonly samples: readonly MeasuredSample[];
}

/** So many files of each format are written at most: the house's, one on the far side, and one near the answer. */
const TRIES = 3;
const GROUND = '#ffffff';

/** Measures how bytes and likeness hang together for a cut, each format from the same untouched pixels. */
export async function measureCurve(order: CurveOrder): Promise<readonly FormatCurve[]> {
  const image = await prepared(order.path, order);
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  const raw = { width: info.width, height: info.height, channels: info.channels };
  const untouched = () => sharp(data, { raw });
  const reference = await lumaOfImage(untouched());
  const measureAt = (format: CutFormat) => (quality: number) =>
    measure(untouched(), reference, format, quality);
  const quick = order.formats.find(({ format }) => format === QUICKEST);
  const told = quick && measureAt(QUICKEST)(quick.first);
  // Side by side: writing one format leaves processors idle that another can use.
  return Promise.all(
    order.formats.map(async (wish): Promise<FormatCurve> => {
      const began = wish === quick && told ? [told] : begun(wish, order.wanted, measureAt(wish.format), told);
      const samples = await searched(wish, order.wanted, measureAt(wish.format), began);
      return { format: wish.format, samples: samples.sort((one, other) => one.bytes - other.bytes) };
    }),
  );
}

/** Its first file tells what to ask of the slowest before that has written its own. */
const QUICKEST = 'jpeg';
const SLOWEST = 'avif';

/**
 * The first samples of a format. At the qualities of the House rules formats look about equally alike: what the quickest
 * says is good enough to begin the second file of the slowest beside its first, instead of after it.
 */
function begun(
  { format, first, isSearched }: FormatWish,
  wanted: number,
  measureAt: (quality: number) => Promise<MeasuredSample>,
  told: Promise<MeasuredSample> | undefined,
): readonly Promise<MeasuredSample | null>[] {
  const own = measureAt(first);
  if (!told || !isSearched || format !== SLOWEST) return [own];
  const ahead = told.then(({ likeness, bytes }) => {
    const quality = nextQuality([{ quality: first, likeness, bytes }], wanted, first, TRIES);
    return quality === null ? null : measureAt(quality);
  });
  return [own, ahead];
}

async function searched(
  { first, isSearched }: FormatWish,
  wanted: number,
  measureAt: (quality: number) => Promise<MeasuredSample>,
  began: readonly Promise<MeasuredSample | null>[],
): Promise<MeasuredSample[]> {
  const samples = (await Promise.all(began)).filter((sample) => sample !== null);
  const isGood = () => samples.some(({ likeness }) => likeness >= wanted);
  for (;;) {
    // One more where the first guesses fell short: a search that ends without an answer has cost them for nothing.
    const tries = !isSearched ? 1 : isGood() ? TRIES : TRIES + 1;
    const quality = nextQuality(samples, wanted, first, tries);
    if (quality === null) break;
    samples.push(await measureAt(quality));
  }
  const { most } = QUALITY_RANGE;
  // Only a format whose best was seen may be said not to come to what is wanted.
  if (isSearched && !isGood() && !samples.some(({ quality }) => quality === most))
    samples.push(await measureAt(most));
  return samples;
}

async function measure(
  untouched: Sharp,
  reference: Luma,
  format: CutFormat,
  quality: number,
): Promise<MeasuredSample> {
  const bytes = await encode(untouched, { format, quality }).toBuffer();
  const { mean, worst } = likenessOf(reference, await lumaOfImage(sharp(bytes)));
  return { quality, bytes: bytes.length, likeness: mean, worst };
}

/** As it is seen on a white page, where it is transparent. */
async function lumaOfImage(image: Sharp): Promise<Luma> {
  const { data, info } = await image
    .flatten({ background: GROUND })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return lumaOf(data, info, info.channels);
}
