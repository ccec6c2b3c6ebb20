import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { LIKENESS_TOLERANCE, type LossyFormat } from '#core/media/alike.ts';
import { likenessOf } from '#core/media/likeness.ts';
import { foundQuality, writtenAlike } from './alike.ts';
import { written } from './encode.ts';
import { lumaOfPixels, lumaOn, type Pixels, pixelsOf } from './pixels.ts';
import { grainyReeds } from './testing-pictures.ts';

/** Bars and words on clear ground, or the same dissolving to nothing on the right. */
async function drawing(fill: string): Promise<Pixels> {
  const bars = Array.from(
    { length: 9 },
    (_, at) =>
      `<rect x="${40 + at * 60}" y="${60 + at * 20}" width="36" height="${300 - at * 20}" fill="${fill}"/>`,
  ).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="400"><defs><linearGradient id="fade"><stop stop-color="#0b5a46"/><stop offset="1" stop-color="#d08030" stop-opacity="0"/></linearGradient></defs>${bars}</svg>`;
  return pixelsOf(sharp(Buffer.from(svg)).toColourspace('srgb'));
}

const likenessOfFile = async (pixels: Pixels, file: Buffer) =>
  likenessOf(await lumaOfPixels(pixels), await lumaOn(sharp(file))).mean;

describe('a file that looks as alike as is wanted', () => {
  const sizes = [
    [360, 20],
    [480, 20],
    [1000, 24],
  ] as const;
  const formats: readonly LossyFormat[] = ['avif', 'webp', 'jpeg'];
  it.each(sizes.flatMap(([width, grain]) => formats.map((format) => [format, width, grain] as const)))(
    'is within the tolerance as %s of a photograph %i px wide with a grain of %i',
    async (format, width, grain) => {
      const pixels = await grainyReeds(width, grain);
      const likeness = await likenessOfFile(pixels, await writtenAlike(pixels, format, 0.985));
      expect(Math.abs(likeness - 0.985)).toBeLessThanOrEqual(LIKENESS_TOLERANCE * 1.5);
    },
  );

  it('is the same to the byte each time', async () => {
    const pixels = await grainyReeds(700, 16);
    const [one, other] = [
      await writtenAlike(pixels, 'webp', 0.985),
      await writtenAlike(pixels, 'webp', 0.985),
    ];
    expect(one.equals(other)).toBe(true);
  });

  it('is not searched on parts that do not stand for the whole', async () => {
    const { data, width, height, channels } = await grainyReeds(1000, 24);
    // All grain in one corner, even ground elsewhere.
    const even = new Uint8Array(data).fill(200);
    for (let row = 0; row < 60; row += 1)
      even.set(data.subarray(row * width * 3, row * width * 3 + 180), row * width * 3);
    const pixels = { data: even, width, height, channels };
    const { file } = await foundQuality(pixels, 'jpeg', 0.985);
    expect(file).not.toBeNull();
  });
});

describe('a PNG', () => {
  it('has a palette where that looks the same, and weighs far less', async () => {
    const pixels = await drawing('#0b5a46');
    const [alike, whole] = [await writtenAlike(pixels, 'png', 0.985), await written(pixels, 'png', 100)];
    expect((await sharp(alike).metadata()).isPalette).toBe(true);
    expect((await sharp(alike).metadata()).hasAlpha).toBe(true);
    expect(alike.length).toBeLessThan(whole.length * 0.7);
  });

  it('keeps every px where a palette would show', async () => {
    const pixels = await grainyReeds(300, 24);
    const alike = await writtenAlike(pixels, 'png', 0.999);
    expect(await pixelsOf(sharp(alike))).toMatchObject({ data: Buffer.from(pixels.data) });
  });

  it('looks the same on dark ground too, where it is transparent in part', async () => {
    const pixels = await drawing('url(#fade)');
    const alike = await writtenAlike(pixels, 'png', 0.985);
    for (const ground of ['#ffffff', '#000000']) {
      const { mean } = likenessOf(
        await lumaOn(sharp(pixels.data, { raw: pixels }), ground),
        await lumaOn(sharp(alike), ground),
      );
      expect(mean).toBeGreaterThanOrEqual(0.985);
    }
  });
});
