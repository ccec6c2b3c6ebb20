import sharp, { type Sharp, type SharpOptions } from 'sharp';
import { cropInPixels, type PixelRect } from '#core/media/crop.ts';
import { heightAtWidth, type Size } from '#core/media/dimensions.ts';
import type { CutFormat } from '#core/media/formats.ts';
import type { OverWords } from '#core/media/over-words.ts';
import { type CutQuality, wantedLikeness } from '#core/media/quality.ts';
import {
  innerSize,
  type Pad,
  type Recipe,
  sizeAfter,
  trimmedSize,
  turnedSize,
  WHOLE,
} from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { sharpKernel, type Tone, toneMatrix } from '#core/media/tone.ts';
import { foundQuality, writtenAlike } from './alike.ts';
import { densityFor } from './drawing.ts';
import { written } from './encode.ts';
import { drawnWords } from './over-words.ts';
import { type Pixels, pixelsOf } from './pixels.ts';
import { MEGAPIXEL_LIMIT } from './read-original.ts';

export interface CutOrder {
  /** Size of the original as seen, in px. */
  readonly original: Size;
  readonly recipe: Recipe;
  /** Width of the cut in px; its height follows from the recipe. */
  readonly width: number;
  readonly format: CutFormat;
  readonly quality: CutQuality;
  readonly animated: boolean;
}

/**
 * Makes a cut from an original in the order of its recipe: orient, trim, turn, mirror, straighten, crop, resize
 * (sharp's Lanczos3), convert to sRGB, tone, words over it, encode. The same order on the same original gives the same bytes.
 * Carries no metadata; the label is written in when it goes out.
 */
export async function makeCut(originalPath: string, order: CutOrder): Promise<Buffer> {
  if (order.animated && order.format === 'webp') return movingCut(originalPath, order);
  return writtenAs(await pixelsOf(await prepared(originalPath, order)), order);
}

function writtenAs(
  pixels: Pixels,
  { format, quality }: Pick<CutOrder, 'format' | 'quality'>,
): Promise<Buffer> {
  const wanted = wantedLikeness(quality);
  return wanted === null ? written(pixels, format, quality) : writtenAlike(pixels, format, wanted);
}

/** The (first) picture of an original as its recipe makes it, at its size. */
export async function prepared(path: string, order: Prepared): Promise<Sharp> {
  const density = await densityFor(path, order.original);
  return preparedFrom(opened(path, { page: 0, ...(density ? { density } : {}) }), order);
}

async function preparedFrom(image: Sharp, order: Prepared): Promise<Sharp> {
  const { recipe } = order;
  const inner = withinPad(order);
  const resized = isTurned(recipe) ? await turnedCut(image, inner) : uprightCut(image, inner);
  const toned = recipe.tone ? await withTone(resized, recipe.tone) : resized;
  const crisp = recipe.sharpness > 0 ? await sharpened(toned, recipe.sharpness) : toned;
  const grounded = recipe.backgroundColour
    ? await settled(crisp.flatten({ background: recipe.backgroundColour }))
    : crisp;
  const whole = recipe.pad ? await padded(grounded, order, recipe.pad) : grounded;
  return recipe.words ? lettered(whole, recipe.words) : whole;
}

type Prepared = Pick<CutOrder, 'original' | 'recipe' | 'width'>;

/** The order for the picture that stands inside a pad, at its own width. */
function withinPad(order: Prepared): Prepared {
  const { original, recipe, width } = order;
  if (!recipe.pad) return order;
  const box = sizeAfter(original, recipe);
  const inner = sizeAfter(original, { ...recipe, pad: null });
  const wide = Math.max(1, Math.round((width * inner.width) / box.width));
  return { original, recipe: { ...recipe, pad: null }, width: wide };
}

/** The same kernel that the browser sharpens with (`core/media/tone.ts`). */
function sharpened(image: Sharp, sharpness: number): Promise<Sharp> {
  return settled(image.convolve({ width: 3, height: 3, kernel: [...sharpKernel(sharpness)], scale: 1 }));
}

/** The picture in the middle of its shape, on the ground. */
async function padded(
  image: Sharp,
  { original, recipe, width }: Prepared,
  { backgroundColour: ground }: Pad,
): Promise<Sharp> {
  const height = heightAtWidth(sizeAfter(original, recipe), width);
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  const [wide, high] = [width - info.width, height - info.height];
  const [left, top] = [Math.max(0, wide >> 1), Math.max(0, high >> 1)];
  const pixels = sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
  const extended = await settled(
    pixels.extend({
      left,
      top,
      right: Math.max(0, wide - left),
      bottom: Math.max(0, high - top),
      background: ground,
    }),
  );
  // Rounding may have left the picture a px over its shape.
  return settled(extended.extract({ left: 0, top: 0, width, height }));
}

async function lettered(image: Sharp, words: OverWords): Promise<Sharp> {
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const coloured = sharp(data, { raw: { width, height, channels } }).toColourspace('srgb');
  return settled(coloured.composite([{ input: drawnWords(words, { width, height }), left: 0, top: 0 }]));
}

const isTurned = ({ turn, mirror, straighten }: Recipe) => turn !== 0 || mirror || straighten !== 0;

function opened(path: string, options: Pick<SharpOptions, 'page' | 'animated' | 'density'>): Sharp {
  return sharp(path, {
    ...options,
    limitInputPixels: MEGAPIXEL_LIMIT * 1_000_000,
    failOn: 'none',
  }).autoOrient();
}

/** The quality of all frames of a picture that moves: that at which its first is as alike as is wanted. */
async function movingQuality(path: string, order: CutOrder): Promise<number> {
  const wanted = wantedLikeness(order.quality);
  if (wanted === null) return order.quality;
  const first = await pixelsOf(await prepared(path, order));
  return (await foundQuality(first, 'webp', wanted)).writing.quality;
}

/** A picture that moves: as it came it is resized in one go; prepared, each of its frames is, and keeps its time. */
async function movingCut(path: string, order: CutOrder): Promise<Buffer> {
  const { recipe, width } = order;
  const quality = await movingQuality(path, order);
  if (recipeKey(recipe) === recipeKey(WHOLE)) {
    const height = heightAtWidth(order.original, width);
    const whole = opened(path, { animated: true }).resize({ width, height, fit: 'fill', kernel: 'lanczos3' });
    return whole.toColourspace('srgb').webp({ quality, effort: 4 }).toBuffer();
  }
  const { pages = 1, delay, loop } = await sharp(path, { animated: true }).metadata();
  const frames: Buffer[] = [];
  for await (const frame of framesOf(path, pages)) {
    const image = await preparedFrom(frame, order);
    frames.push(await image.ensureAlpha().png({ compressionLevel: 1 }).toBuffer());
  }
  return sharp(frames, { join: { animated: true } })
    .webp({ quality, effort: 4, ...(delay ? { delay } : {}), loop: loop ?? 0 })
    .toBuffer();
}

/** So many frames are read in one go. Each alone would be decoded from the first on, which is quadratic in them. */
const FRAMES_AT_ONCE = 50;

async function* framesOf(path: string, pages: number): AsyncIterable<Sharp> {
  for (let first = 0; first < pages; first += FRAMES_AT_ONCE) {
    const count = Math.min(FRAMES_AT_ONCE, pages - first);
    const { data, info } = await sharp(path, {
      page: first,
      pages: count,
      limitInputPixels: MEGAPIXEL_LIMIT * 1_000_000,
      failOn: 'none',
    })
      .raw()
      .toBuffer({ resolveWithObject: true });
    const { width, channels } = info;
    const height = info.pageHeight ?? Math.floor(info.height / count);
    const bytes = width * height * channels;
    for (let at = 0; at < count; at += 1)
      yield sharp(data.subarray(at * bytes, (at + 1) * bytes), { raw: { width, height, channels } });
  }
}

/** Trim and crop are one rectangle where nothing is turned between them. */
function uprightCut(image: Sharp, { original, recipe, width }: Prepared): Sharp {
  const { trim, crop } = recipe;
  if (trim || crop) image.extract(rectIn(original, recipe));
  const height = heightAtWidth(sizeAfter(original, recipe), width);
  return image.resize({ width, height, fit: 'fill', kernel: 'lanczos3' }).toColourspace('srgb');
}

function rectIn(original: Size, { trim, crop }: Recipe): PixelRect {
  const outer = trim ? cropInPixels(original, trim) : { left: 0, top: 0, ...original };
  if (!crop) return outer;
  const inner = cropInPixels(outer, crop);
  return { ...inner, left: outer.left + inner.left, top: outer.top + inner.top };
}

/** Turning works on twice the pixels that the cut needs at most, so that a huge original costs no more than a large one. */
const WORKING_SHARE = 2;

/** Step by step through plain pixels, since sharp has an order of its own for what is asked of it at once. */
async function turnedCut(image: Sharp, { original, recipe, width }: Prepared): Promise<Sharp> {
  const cutSize = sizeAfter(original, recipe);
  const trimmed = trimmedSize(original, recipe.trim);
  const scale = Math.min(1, (width * WORKING_SHARE) / cutSize.width);
  if (recipe.trim) image.extract(cropInPixels(original, recipe.trim));
  const small = {
    width: Math.max(1, Math.round(trimmed.width * scale)),
    height: Math.max(1, Math.round(trimmed.height * scale)),
  };
  const working = await settled(image.resize({ ...small, fit: 'fill' }).toColourspace('srgb'));
  const upright = await settled(working.rotate(recipe.turn));
  const quarter = recipe.mirror ? await settled(upright.flop()) : upright;
  const turned = turnedSize(small, recipe.turn);
  const straight =
    recipe.straighten === 0 ? quarter : await straightened(quarter, turned, recipe.straighten / 10);
  const whole = innerSize(turned, recipe.straighten / 10);
  const cropped = recipe.crop ? await settled(straight.extract(cropInPixels(whole, recipe.crop))) : straight;
  const height = heightAtWidth(cutSize, width);
  return cropped.resize({ width, height, fit: 'fill', kernel: 'lanczos3' });
}

/** Turned by an angle, and the largest upright rectangle cut from the middle of what that leaves. */
async function straightened(image: Sharp, size: Size, degrees: number): Promise<Sharp> {
  const { data, info } = await image
    .rotate(degrees, { background: { r: 0, g: 0, b: 0, alpha: 0 } })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const inner = innerSize(size, degrees);
  const width = Math.min(inner.width, info.width);
  const height = Math.min(inner.height, info.height);
  const pixels = sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
  return settled(
    pixels.extract({
      left: Math.round((info.width - width) / 2),
      top: Math.round((info.height - height) / 2),
      width,
      height,
    }),
  );
}

async function settled(image: Sharp): Promise<Sharp> {
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  return sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
}

/** The tone's matrix on each pixel; the part of white rides on an alpha channel that is full. */
async function withTone(image: Sharp, tone: Tone): Promise<Sharp> {
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  const hasAlpha = info.channels === 4 || info.channels === 2;
  const [red, green, blue] = toneMatrix(tone);
  const plain = { width: info.width, height: info.height };
  const coloured =
    info.channels > 2
      ? await settled(sharp(data, { raw: { ...plain, channels: info.channels } }).ensureAlpha())
      : sharp(inColour(data, info.channels), { raw: { ...plain, channels: 4 } });
  const toned = await settled(coloured.recomb([[...red], [...green], [...blue], [0, 0, 0, 1]]));
  return hasAlpha ? toned : settled(toned.removeAlpha());
}

/** Grey pixels, with or without alpha, as red, green, blue and alpha: a grey picture can be toned warm. */
function inColour(grey: Buffer, channels: number): Buffer {
  const count = grey.length / channels;
  const colour = Buffer.allocUnsafe(count * 4);
  for (let at = 0; at < count; at += 1) {
    colour.fill(grey[at * channels] ?? 0, at * 4, at * 4 + 3);
    colour[at * 4 + 3] = channels === 2 ? (grey[at * channels + 1] ?? 0) : 255;
  }
  return colour;
}
