import sharp from 'sharp';
import {
  aimedLikeness,
  asAlike,
  type BetweenStep,
  betweenSteps,
  firstQuality,
  foretoldQuality,
  type LossyFormat,
  nextQuality,
  REFERENCE_QUALITY,
  type Sample,
} from '#core/media/alike.ts';
import { hasFineColour } from '#core/media/fine-colour.ts';
import type { CutFormat } from '#core/media/formats.ts';
import { type Luma, likenessOf } from '#core/media/likeness.ts';
import { mosaicOf, mosaicPixels } from '#core/media/mosaic.ts';
import { encode, type Writing } from './encode.ts';
import { imageOf, lumaOfPixels, lumaOn, type Pixels } from './pixels.ts';

/** A picture as a file that looks as alike as is wanted (SSIM, 0 to 1), and weighs no more than that needs. */
export function writtenAlike(pixels: Pixels, format: CutFormat, wanted: number): Promise<Buffer> {
  return format === 'png' ? pngAlike(pixels, wanted) : lossyAlike(pixels, format, wanted);
}

async function lossyAlike(pixels: Pixels, format: LossyFormat, wanted: number): Promise<Buffer> {
  const { writing, file } = await foundQuality(pixels, format, wanted);
  return file ?? encode(imageOf(pixels), writing).toBuffer();
}

export interface FoundQuality {
  readonly writing: Writing;
  /** All that was tried. Where it was tried on a part of the picture, bytes and likeness are what the whole is thought to have. */
  readonly samples: readonly Sample[];
  /** The file itself, where the whole picture was tried. */
  readonly file: Buffer | null;
  /** What another quality is thought to come to, by the same measure as the samples. */
  readonly tryAt: (quality: number) => Promise<Sample>;
}

const TRIES = 6;

/**
 * The quality at which a format looks as alike as is wanted. A large picture is tried on a mosaic of its parts, which cost
 * a tenth of it; how the parts compare with the whole is told by a plain JPEG of both, the quickest to write and to read.
 */
export async function foundQuality(
  pixels: Pixels,
  format: LossyFormat,
  wanted: number,
): Promise<FoundQuality> {
  const fineColour = hasFineColour(pixels.data, pixels, pixels.channels);
  const whole = await referenceOf(pixels);
  const ground = (await mosaicGround(pixels, whole)) ?? { part: pixels, luma: whole.luma, lost: whole.lost };
  const isWhole = ground.part === pixels;
  const share = isWhole ? 1 : (whole.lost / ground.lost) * BIAS[format];
  const area = (pixels.width * pixels.height) / (ground.part.width * ground.part.height);
  const aimed = aimedLikeness(wanted, isWhole);
  const first = firstQuality(format, 1 - whole.lost, wanted);
  const tryAt = async (quality: number, between?: BetweenStep): Promise<Try> => {
    const file = await encode(imageOf(ground.part), { format, quality, fineColour, between }).toBuffer();
    const { mean } = likenessOf(ground.luma, await lumaOn(sharp(file)));
    const sample = {
      quality,
      bytes: Math.round(file.length * area),
      likeness: 1 - (1 - mean) * share,
      ...(between ? { between } : {}),
    };
    return { ...sample, file };
  };
  const tried: Try[] = [];
  for (;;) {
    const foretold = isWhole ? null : foretoldQuality(format, tried, aimed);
    if (foretold !== null)
      return { writing: { format, quality: foretold, fineColour }, samples: tried, file: null, tryAt };
    const next = nextQuality(format, tried, aimed, first, TRIES);
    const [step] = next === null ? betweenSteps(format, tried, wanted) : [];
    if (next !== null) tried.push(await tryAt(next));
    else if (step) tried.push(await tryAt(step.quality, step.between));
    else {
      const best = asAlike(tried, wanted);
      const { quality, between } = best ?? { quality: first };
      const file = isWhole ? (best?.file ?? null) : null;
      return { writing: { format, quality, fineColour, between }, samples: tried, file, tryAt };
    }
  }
}

interface Try extends Sample {
  readonly file: Buffer;
}

/** What a mosaic may lose against the whole, and still stand for it: a drawing has its lines in few of its parts. */
const FAIR = { least: 0.85, most: 1.45 } as const;

/** The mosaic to search on, or null where the picture is small, or its parts do not stand for it. */
async function mosaicGround(pixels: Pixels, whole: Reference) {
  const mosaic = mosaicOf(pixels);
  if (!mosaic) return null;
  const part: Pixels = {
    data: mosaicPixels(pixels.data, pixels, pixels.channels, mosaic),
    width: mosaic.columns * mosaic.tile,
    height: mosaic.rows * mosaic.tile,
    channels: pixels.channels,
  };
  const { luma, lost } = await referenceOf(part);
  const share = whole.lost / Math.max(lost, 1e-9);
  return share >= FAIR.least && share <= FAIR.most ? { part, luma, lost } : null;
}

/** By how much more the whole loses than the mosaic foretells: the mean over 31 cuts of painted marshes, and for WebP, which varies most, a little more. */
const BIAS: Readonly<Record<LossyFormat, number>> = { avif: 1.03, webp: 0.985, jpeg: 1.006 };

interface Reference {
  readonly luma: Luma;
  /** 1 - SSIM of a plain JPEG. */
  readonly lost: number;
}

async function referenceOf(pixels: Pixels): Promise<Reference> {
  const luma = await lumaOfPixels(pixels);
  const plain = await imageOf(pixels)
    .flatten({ background: '#ffffff' })
    .jpeg({ quality: REFERENCE_QUALITY })
    .toBuffer();
  const { mean } = likenessOf(luma, await lumaOn(sharp(plain)));
  return { luma, lost: 1 - mean };
}

/** With a palette where that looks the same, on light ground and on dark: it keeps transparency too. Else every px is kept. */
async function pngAlike(pixels: Pixels, wanted: number): Promise<Buffer> {
  const palette = await imageOf(pixels).png({ palette: true, quality: 100, effort: 7 }).toBuffer();
  for (const ground of ['#ffffff', '#000000']) {
    const untouched = await lumaOn(imageOf(pixels), ground);
    const { mean } = likenessOf(untouched, await lumaOn(sharp(palette), ground));
    if (mean < wanted) return encode(imageOf(pixels), WHOLE_PNG).toBuffer();
  }
  const whole = await encode(imageOf(pixels), WHOLE_PNG).toBuffer();
  return palette.length < whole.length ? palette : whole;
}

const WHOLE_PNG = { format: 'png', quality: 100, fineColour: true } as const;
