import sharp from 'sharp';
import { type LossyFormat, QUALITY_RANGE, type Sample } from '#core/media/alike.ts';
import { sampleAt } from '#core/media/curve-point.ts';
import type { Size } from '#core/media/dimensions.ts';
import { type Likeness, type Luma, likenessOf } from '#core/media/likeness.ts';
import type { Recipe } from '#core/media/recipe.ts';
import { type FoundQuality, foundQuality } from '../alike.ts';
import { prepared } from '../cut.ts';
import { encode, written } from '../encode.ts';
import { imageOf, lumaOfPixels, lumaOn, pixelsOf } from '../pixels.ts';

export interface CurveSample extends Sample {
  /** Where the file looks least alike; null where none was written of the whole picture, and the rest is foretold. */
  readonly worst: Likeness['worst'] | null;
}

/** What is asked of one format: the curve round the quality that is found for it, or just one quality. */
export interface FormatWish {
  readonly format: LossyFormat;
  readonly quality: number | null;
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
  readonly format: LossyFormat;
  /** The quality at which a cut of this format goes out. */
  readonly found: number;
  readonly samples: readonly CurveSample[];
}

/** Measures how bytes and likeness hang together for a cut, each format from the same untouched pixels. */
export async function measureCurve(order: CurveOrder): Promise<readonly FormatCurve[]> {
  const pixels = await pixelsOf(await prepared(order.path, order));
  const reference = await lumaOfPixels(pixels);
  // Side by side: writing one format leaves processors idle that another can use.
  return Promise.all(
    order.formats.map(async ({ format, quality }): Promise<FormatCurve> => {
      if (quality !== null) {
        const file = await written(pixels, format, quality);
        return { format, found: quality, samples: [await measured(reference, file, quality)] };
      }
      const search = await foundQuality(pixels, format, order.wanted);
      const file = search.file ?? (await encode(imageOf(pixels), search.writing).toBuffer());
      const exact = await measured(reference, file, search.writing.quality);
      return {
        format,
        found: search.writing.quality,
        samples: [exact, ...(await foretoldRound(exact, search))].sort(byBytes),
      };
    }),
  );
}

const byBytes = (one: Sample, other: Sample) => one.bytes - other.bytes;

/** So many steps of quality on both sides of what was found, for the curve to have a beginning and an end. */
const FAR_STEPS = [-40, -18, 6, 12] as const;

/** What other qualities are thought to come to: as the search has them, brought in line with the file that was written. */
async function foretoldRound(exact: Sample, search: FoundQuality): Promise<readonly CurveSample[]> {
  const { least, most } = QUALITY_RANGE;
  const far = FAR_STEPS.map((step) => exact.quality + step).filter(
    (quality) => quality >= least && quality <= most,
  );
  const own =
    search.samples.find(
      ({ quality, between }) => quality === exact.quality && between === search.writing.between,
    ) ?? sampleAt(search.samples, exact.quality);
  const qualities = search.samples.filter(({ between }) => !between);
  const tried = [...qualities, ...(await Promise.all(far.map((quality) => search.tryAt(quality))))];
  if (!own) return [];
  const [heavier, worse] = [exact.bytes / own.bytes, (1 - exact.likeness) / Math.max(1e-6, 1 - own.likeness)];
  return tried
    .filter(({ quality }) => quality !== exact.quality)
    .map(({ quality, bytes, likeness }) => ({
      quality,
      bytes: Math.round(bytes * heavier),
      likeness: 1 - (1 - likeness) * worse,
      worst: null,
    }));
}

async function measured(reference: Luma, file: Buffer, quality: number): Promise<CurveSample> {
  const { mean, worst } = likenessOf(reference, await lumaOn(sharp(file)));
  return { quality, bytes: file.length, likeness: mean, worst };
}
