import sharp, { type Sharp } from 'sharp';
import { seeded } from './random.ts';

/** How a painting becomes a file. Sizes in px, before any turning by orientation. */
export interface Finish {
  readonly width: number;
  readonly height: number;
  /** Strength of film grain, 0 for none. */
  readonly grain: number;
  readonly sepia?: boolean;
  /** Ground showing round the picture, as if it had been cut from a page: share of the width. */
  readonly border?: number;
}

const GRAIN_TILE_PX = 512;

/** The tile may not be larger than what it is laid on. */
const tileSide = (width: number, height: number) => Math.min(GRAIN_TILE_PX, width, height);

/** Film grain as a tile of neutral noise: makes compression behave as it does on photographs. */
function grainTile(strength: number, seed: number, side: number): Promise<Buffer> {
  const random = seeded(seed);
  const pixels = Buffer.alloc(side * side * 3);
  for (let at = 0; at < pixels.length; at += 3) {
    const level = 128 + (random.next() + random.next() + random.next() - 1.5) * strength;
    pixels.fill(Math.max(0, Math.min(255, Math.round(level))), at, at + 3);
  }
  return sharp(pixels, { raw: { width: side, height: side, channels: 3 } })
    .png()
    .toBuffer();
}

/** Paintings are drawn and grained at half size and brought up: a quarter of the time, and a little soft, as lenses are. */
const DRAWN_SHARE = 0.5;
const SVG_DPI = 72;

/** Renders a painting at a size, with its grain, as a picture ready to be encoded. */
export async function render(svg: string, finish: Finish, seed: number): Promise<Sharp> {
  const drawnWidth = Math.round(finish.width * DRAWN_SHARE);
  const viewWidth = Number(/viewBox="0 0 (\d+)/.exec(svg)?.[1] ?? 1000);
  const drawnHeight = Math.round(finish.height * DRAWN_SHARE);
  let image = await settled(
    sharp(Buffer.from(svg), { density: (SVG_DPI * drawnWidth) / viewWidth, limitInputPixels: false })
      .resize(drawnWidth, drawnHeight, { fit: 'fill' })
      .flatten({ background: '#ffffff' }),
  );
  if (finish.grain > 0) {
    const tile = await grainTile(finish.grain, seed, tileSide(drawnWidth, drawnHeight));
    image = image.composite([{ input: tile, tile: true, blend: 'overlay' }]);
  }
  if (finish.sepia) image = (await settled(image)).linear(0.82, 30).tint('#b08a5a');
  image = (await settled(image)).resize(finish.width, finish.height, { fit: 'fill', kernel: 'cubic' });
  if (!finish.border) return image;
  const edge = Math.round(finish.width * finish.border);
  return (await settled(image)).extend({
    top: edge,
    bottom: edge,
    left: edge,
    right: edge,
    background: '#f4f1ea',
  });
}

/** The picture with all that was asked so far done, since sharp has an order of its own for what is asked at once. */
async function settled(image: Sharp): Promise<Sharp> {
  const { data, info } = await image.toColourspace('srgb').raw().toBuffer({ resolveWithObject: true });
  return sharp(data, {
    raw: { width: info.width, height: info.height, channels: info.channels },
    limitInputPixels: false,
  });
}
