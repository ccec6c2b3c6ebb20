import { readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import type { OutsidePicture } from './catalogue.ts';

export interface PictureFile {
  readonly bytes: Buffer;
  readonly width: number;
  readonly height: number;
}

/** Where paintings lie ready; without one, a plain ground in the picture's colours stands in. */
const folder = process.env.OUTSIDE_PICTURES;
const PLAIN_SHARE = 0.25;
const originals = new Map<string, Promise<PictureFile>>();

/** A picture's file, read or made once. */
export function original(picture: OutsidePicture): Promise<PictureFile> {
  const known = originals.get(picture.id);
  if (known) return known;
  const made = read(picture);
  originals.set(picture.id, made);
  made.catch(() => originals.delete(picture.id));
  return made;
}

async function read(picture: OutsidePicture): Promise<PictureFile> {
  const path = folder ? join(folder, `${picture.id}.jpg`) : null;
  const bytes = path && (await exists(path)) ? await readFile(path) : await plain(picture);
  const { width, height } = await sharp(bytes).metadata();
  return { bytes, width, height };
}

const sized = new Map<string, Promise<Buffer>>();

/** The picture at most so wide and high, as previews and comps are; or a square of its middle. */
export function atMost(
  picture: OutsidePicture,
  edge: number,
  over?: string,
  isSquare = false,
): Promise<Buffer> {
  const key = `${picture.id} ${edge} ${over ?? ''}`;
  const known = sized.get(key);
  if (known) return known;
  const made = original(picture).then(async ({ bytes, width, height }) => {
    const side = isSquare ? Math.min(edge, width, height) : edge;
    const { data, info } = await sharp(bytes)
      .resize({ width: side, height: side, fit: isSquare ? 'cover' : 'inside', withoutEnlargement: true })
      .toBuffer({ resolveWithObject: true });
    const image = sharp(data);
    if (over) image.composite([{ input: Buffer.from(mark(over, info.width, info.height)) }]);
    return image.jpeg({ quality: 84 }).toBuffer();
  });
  sized.set(key, made);
  return made;
}

/** An agency's mark across a comp. */
function mark(words: string, width: number, height: number): string {
  const size = Math.round(width / 16);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><g fill="#fff" fill-opacity="0.72" font-family="monospace" font-weight="700" font-size="${size}" transform="rotate(-12 ${width / 2} ${height / 2})"><text x="${width * 0.08}" y="${height * 0.4}">${words}</text><text x="${width * 0.3}" y="${height * 0.72}">${words}</text></g></svg>`;
}

/** For a stand-in that was started by itself: a ground with enough in it to be told apart. */
function plain(picture: OutsidePicture): Promise<Buffer> {
  const { seed } = picture.scene;
  const width = Math.round(picture.width * PLAIN_SHARE);
  const height = Math.round(picture.height * PLAIN_SHARE);
  const bars = Array.from({ length: 12 }, (_, at) => {
    const hue = (seed * 37 + at * (29 + (seed % 17))) % 360;
    const x = ((seed * (at + 3) * 7919) % 1000) / 10;
    const y = ((seed * (at + 5) * 104_729) % 1000) / 10;
    return `<ellipse cx="${x}%" cy="${y}%" rx="${6 + ((seed + at) % 14)}%" ry="${5 + ((seed * at) % 16)}%" fill="hsl(${hue} 45% ${30 + ((at * 11) % 50)}%)"/>`;
  });
  return sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="hsl(${seed % 360} 30% 62%)"/>${bars.join('')}</svg>`,
    ),
  )
    .jpeg({ quality: 90 })
    .toBuffer();
}

function exists(path: string): Promise<boolean> {
  return stat(path).then(
    () => true,
    () => false,
  );
}
