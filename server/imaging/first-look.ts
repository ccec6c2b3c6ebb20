import { open } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import { maybeJpegQuality } from '#core/formats/jpeg.ts';
import { insideBorder } from '#core/media/border.ts';
import type { Condition } from '#core/media/condition.ts';
import { blocksShow, type GreyPicture, wasEnlarged } from '#core/media/detail.ts';
import { fitWithin, heightAtWidth, type Size } from '#core/media/dimensions.ts';
import { LOOK_EDGE_PX, type LookHash, lookHash } from '#core/media/lookalike.ts';
import { THUMB_PX, VIEW_PX } from '../media/screen-px.ts';
import { densityFor } from './drawing.ts';
import { broken, MEGAPIXEL_LIMIT, type OriginalFacts, shortName } from './read-original.ts';

/** WebP quality of what screens show; what goes out has the target's own. */
export const SCREEN_QUALITY = 80;

interface ScreenPicture {
  /** Width in px. */
  readonly width: number;
  readonly bytes: Buffer;
}

/** What the first look at a picture's pixels gives. */
export interface FirstLook {
  /** What screens show of it, widest first. */
  readonly screens: readonly ScreenPicture[];
  readonly look: LookHash;
  readonly conditions: readonly Condition[];
}

const BORDER_EDGE_PX = 400;
const WHITE = '#ffffff';

/**
 * Decodes a picture once, to the width that screens show, and makes of that all that has to be known and shown of
 * it. A file that breaks off half way is found here. Throws an HttpProblem with a plain sentence.
 */
export async function firstLook(path: string, saidName: string, facts: OriginalFacts): Promise<FirstLook> {
  const name = shortName(saidName);
  const size = { width: Math.min(VIEW_PX, facts.size.width), height: 0 };
  const shown = { width: size.width, height: heightAtWidth(facts.size, size.width) };
  const density = facts.format === 'svg' ? await densityFor(path, shown) : undefined;
  const { data, info } = await sharp(path, {
    limitInputPixels: MEGAPIXEL_LIMIT * 1_000_000,
    failOn: 'truncated',
    ...(density ? { density } : {}),
  })
    .autoOrient()
    .resize({ ...shown, fit: 'fill', kernel: 'lanczos3' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true })
    .catch((cause: unknown) => {
      throw broken(name, cause);
    });
  const decoded = () =>
    sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
  const [screens, grey, inside, damage] = await Promise.all([
    screensOf(decoded, shown),
    decoded()
      .flatten({ background: WHITE })
      .greyscale()
      .resize(LOOK_EDGE_PX, LOOK_EDGE_PX, { fit: 'fill' })
      .raw()
      .toBuffer(),
    facts.alpha || facts.animated || facts.format === 'svg' ? null : borderOf(decoded, shown),
    damageOf(path, facts),
  ]);
  return {
    screens,
    look: lookHash(new Uint8Array(grey)),
    conditions: [...(inside ? [{ code: 'border', inside } as const] : []), ...damage],
  };
}

async function screensOf(decoded: () => Sharp, shown: Size): Promise<readonly ScreenPicture[]> {
  const widths = [...new Set([shown.width, Math.min(THUMB_PX, shown.width)])];
  return Promise.all(
    widths.map(async (width) => ({
      width,
      bytes: await decoded()
        .resize({ width, height: heightAtWidth(shown, width), fit: 'fill', kernel: 'lanczos3' })
        .webp({ quality: SCREEN_QUALITY, effort: 4 })
        .toBuffer(),
    })),
  );
}

async function borderOf(decoded: () => Sharp, shown: Size) {
  const small = fitWithin(shown, { width: BORDER_EDGE_PX, height: BORDER_EDGE_PX });
  const { data, info } = await decoded()
    .resize({ ...small, fit: 'fill' })
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  if (info.channels !== 3) return null;
  return insideBorder({ pixels: new Uint8Array(data), width: info.width, height: info.height });
}

/** A strip this high, at the picture's own size, tells how it was treated before. */
const STRIP_PX = 128;
/** Where the strip lies, as a share of the height: a reader of the file stops there. */
const STRIP_AT = 0.45;
const LEAST_STRIP_WIDTH_PX = 512;
const POOR_JPEG_QUALITY = 35;
const HEADER_BYTES = 65_536;

async function damageOf(path: string, facts: OriginalFacts): Promise<readonly Condition[]> {
  if (facts.format === 'svg' || facts.animated) return [];
  const quality = facts.format === 'jpeg' ? maybeJpegQuality(await startOf(path)) : undefined;
  const isPoor = quality !== undefined && quality < POOR_JPEG_QUALITY;
  const strip = await stripOf(path);
  const found: Condition[] = [];
  if (isPoor || (strip && blocksShow(strip))) found.push({ code: 'compressed', quality: quality ?? null });
  if (strip && wasEnlarged(strip)) found.push({ code: 'enlarged-before' });
  return found;
}

async function stripOf(path: string): Promise<GreyPicture | null> {
  const image = sharp(path, { limitInputPixels: MEGAPIXEL_LIMIT * 1_000_000, failOn: 'none' });
  const { width, height } = await image.metadata();
  if (width < LEAST_STRIP_WIDTH_PX || height < STRIP_PX) return null;
  // A multiple of 8 px, so that the blocks of a JPEG lie where they are looked for.
  const top = Math.floor(((height - STRIP_PX) * STRIP_AT) / 8) * 8;
  const pixels = await image
    .extract({ left: 0, top, width, height: STRIP_PX })
    .flatten({ background: WHITE })
    .greyscale()
    .raw()
    .toBuffer();
  return { pixels: new Uint8Array(pixels), width, height: STRIP_PX };
}

async function startOf(path: string): Promise<Uint8Array> {
  const file = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(HEADER_BYTES), 0, HEADER_BYTES, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}
