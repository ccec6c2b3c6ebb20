import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Recipe, WHOLE } from '#core/media/recipe.ts';
import { makeCut } from './cut.ts';
import { firstLook } from './first-look.ts';
import { readOriginal } from './read-original.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'placard-drawing-'));
});
afterAll(() => rm(folder, { recursive: true }));

async function drawing(width: number, height: number): Promise<string> {
  const path = join(folder, `${width}x${height}.svg`);
  await writeFile(
    path,
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="${width}" height="${height}" fill="#fff"/><rect width="${width / 2}" height="${height}"/></svg>`,
  );
  return path;
}

/** How many px of the middle row are neither black nor white. */
async function blurAt(cut: Buffer): Promise<number> {
  const { data, info } = await sharp(cut).flatten().greyscale().raw().toBuffer({ resolveWithObject: true });
  const row = data.subarray(info.width * (info.height >> 1), info.width * ((info.height >> 1) + 1));
  return row.filter((light) => light > 16 && light < 239).length;
}

const order = (original: { width: number; height: number }, width: number, recipe: Recipe = WHOLE) => ({
  original,
  recipe,
  width,
  format: 'png' as const,
  quality: 80,
  animated: false,
});

describe('a drawing', () => {
  it('is taken large, whatever size it says itself, and says that it is one', async () => {
    const facts = await readOriginal(await drawing(40, 20), 'mark.svg');
    expect(facts.size).toEqual({ width: 4000, height: 2000 });
    expect(facts.conditions).toEqual([{ code: 'drawing' }]);
    expect((await readOriginal(await drawing(5000, 10), 'strip.svg')).size).toEqual({
      width: 5000,
      height: 10,
    });
  });

  it('is sharp in cuts far larger than it says itself, whole and cropped and turned', async () => {
    const path = await drawing(40, 20);
    const { size } = await readOriginal(path, 'mark.svg');
    const crop = { left: 0.25, top: 0.1, width: 0.75, height: 0.9 };
    for (const recipe of [WHOLE, { ...WHOLE, crop }, { ...WHOLE, crop, mirror: true }]) {
      const cut = await makeCut(path, order(size, 2000, recipe));
      expect((await sharp(cut).metadata()).width).toBe(2000);
      expect(await blurAt(cut)).toBeLessThan(8);
    }
  });

  it('is sharp on screens too', async () => {
    const path = await drawing(60, 40);
    const facts = await readOriginal(path, 'mark.svg');
    const [view] = (await firstLook(path, 'mark.svg', facts)).screens;
    expect(view?.width).toBe(1600);
    expect(view && (await blurAt(view.bytes))).toBeLessThan(12);
  });
});
