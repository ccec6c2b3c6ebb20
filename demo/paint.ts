import { mkdir, rename, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { metadataOfLabel } from '#core/formats/metadata.ts';
import { EMPTY_LABEL, withPatch } from '#core/rights/label.ts';
import type { MetadataTool } from '../server/imaging/metadata.ts';
import { paintChart, paintMap, paintMark } from './painter/graphics.ts';
import { render } from './painter/render.ts';
import { paintScene } from './painter/scene.ts';
import type { DemoPiece } from './pieces.ts';

const GRAIN = 26;
const JPEG_QUALITY = 90;
const FRAMES = 8;
/** Raise when paintings change, so that those of an earlier version are painted anew. */
const PAINTING_VERSION = 2;

/**
 * Paints a piece's original file unless it lies there already, and returns its path. `share` makes all sizes
 * smaller, for tests that only need many pieces.
 */
export async function paintPiece(
  piece: DemoPiece,
  folder: string,
  share: number,
  metadata: MetadataTool,
): Promise<string> {
  const path = join(folder, `v${PAINTING_VERSION}-${share}`, `${piece.key}${extensionOf(piece)}`);
  if (await exists(path)) return path;
  await mkdir(dirname(path), { recursive: true });
  const temporary = path.replace(/(\.\w+)$/, '.part$1');
  await writeFile(temporary, await bytesOf(piece, share));
  const tags = tagsOf(piece);
  if (Object.keys(tags).length > 0) await metadata.write(temporary, tags);
  await rename(temporary, path);
  return path;
}

function extensionOf(piece: DemoPiece): string {
  return /\.\w+$/.exec(piece.file)?.[0].toLowerCase() ?? '.jpg';
}

async function bytesOf(piece: DemoPiece, share: number): Promise<Buffer> {
  const [width, height] = [piece.width, piece.height].map((px) => Math.max(200, Math.round(px * share)));
  const size = { width: width ?? 200, height: height ?? 200 };
  switch (piece.painting.kind) {
    case 'drawing':
      return Buffer.from(paintMark('#0f5c4d'));
    case 'mark':
      return sharp(Buffer.from(paintMark('#172126')), { density: 144 })
        .resize(size.width, size.height)
        .png()
        .toBuffer();
    case 'chart':
      return sharp(Buffer.from(paintChart()), { density: 144 })
        .resize(size.width, size.height, { fit: 'fill' })
        .png()
        .toBuffer();
    case 'map':
      return sharp(Buffer.from(paintMap()), { density: 216 })
        .resize(size.width, size.height, { fit: 'fill' })
        .png()
        .toBuffer();
    case 'animation':
      return animation(piece, size);
    case 'scene': {
      const { subject, light, sepia = false, border = 0 } = piece.painting;
      const image = await render(
        paintScene(subject, light, piece.seed, size.width / size.height),
        { ...size, grain: GRAIN, sepia, border },
        piece.seed,
      );
      const upright = piece.wideGamut ? image.withIccProfile('p3') : image;
      if (!piece.turned) return upright.jpeg({ quality: JPEG_QUALITY }).toBuffer();
      // Lying on its side with EXIF orientation 6, "turn a quarter clockwise to see it".
      const raw = await upright.jpeg({ quality: 98 }).toBuffer();
      return sharp(raw)
        .rotate(270)
        .withMetadata({ orientation: 6 })
        .jpeg({ quality: JPEG_QUALITY })
        .toBuffer();
    }
  }
}

async function animation(piece: DemoPiece, size: { width: number; height: number }): Promise<Buffer> {
  const frames = await Promise.all(
    Array.from({ length: FRAMES }, (_, at) =>
      sharp(Buffer.from(paintScene('channel', 'noon', piece.seed + at, size.width / size.height)))
        .resize(size.width, size.height, { fit: 'fill' })
        .png()
        .toBuffer(),
    ),
  );
  return sharp(frames, { join: { animated: true } })
    .gif({ delay: Array.from({ length: FRAMES }, () => 400) })
    .toBuffer();
}

function tagsOf(piece: DemoPiece): Readonly<Record<string, string | readonly string[]>> {
  const label = piece.inFile ? metadataOfLabel(withPatch(EMPTY_LABEL, piece.inFile), '') : {};
  const place = piece.gps
    ? {
        'GPS:GPSLatitude': '52.1',
        'GPS:GPSLatitudeRef': 'N',
        'GPS:GPSLongitude': '1.6',
        'GPS:GPSLongitudeRef': 'E',
      }
    : {};
  return { ...label, ...place };
}

async function exists(path: string): Promise<boolean> {
  return stat(path).then(
    () => true,
    () => false,
  );
}
