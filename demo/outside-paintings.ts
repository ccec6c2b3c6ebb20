import { mkdir, readdir, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { OUTSIDE_PICTURES, type OutsidePicture } from '../outside/catalogue.ts';
import { FILMS } from '../outside/films.ts';
import { OLD_PICTURES } from '../outside/old-site.ts';
import { render } from './painter/render.ts';
import { paintScene } from './painter/scene.ts';

const GRAIN = 26;
const JPEG_QUALITY = 90;
const AT_ONCE = 2;

/**
 * Paints the pictures that the stand-ins hand out, into the folder where they look for them; those that lie there
 * already stay. `share` makes all sizes smaller.
 */
export async function paintOutside(
  folder: string,
  share: number,
  say: (sentence: string) => void,
  ending: AbortSignal,
): Promise<void> {
  await mkdir(folder, { recursive: true });
  const there = new Set(await readdir(folder));
  const waiting = [...OUTSIDE_PICTURES, ...FILMS.map(({ still }) => still), ...OLD_PICTURES].filter(
    ({ id }) => !there.has(`${id}.jpg`),
  );
  if (waiting.length > 0) say('Painting what the world outside has.');
  const paintNext = async (): Promise<void> => {
    for (let next = waiting.shift(); next && !ending.aborted; next = waiting.shift())
      await paintOne(next, folder, share);
  };
  await Promise.all(Array.from({ length: AT_ONCE }, paintNext));
}

async function paintOne(picture: OutsidePicture, folder: string, share: number): Promise<void> {
  const path = join(folder, `${picture.id}.jpg`);
  const { subject, light, seed, sepia = false, border = 0 } = picture.scene;
  const size = { width: Math.round(picture.width * share), height: Math.round(picture.height * share) };
  const image = await render(
    paintScene(subject, light, seed, size.width / size.height),
    { ...size, grain: GRAIN, sepia, border },
    seed,
  );
  const temporary = join(folder, `${picture.id}.part.jpg`);
  await image.jpeg({ quality: JPEG_QUALITY }).toFile(temporary);
  await rename(temporary, path);
}
