import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { advanceOf } from '#core/media/letters.ts';
import { type OverWords, setWords } from '#core/media/over-words.ts';
import { WHOLE } from '#core/media/recipe.ts';
import { makeCut } from './cut.ts';
import { drawnWords } from './over-words.ts';

const WORDS: OverWords = {
  text: 'Bitterns are booming again',
  place: 'bottom left',
  size: 80,
  ink: '#ffffff',
  plate: null,
};
const SIZE = { width: 900, height: 600 };
let folder: string;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'placard-words-'));
});
afterAll(() => rm(folder, { recursive: true }));

/** The box that anything is drawn in, in px. */
async function inkBox(words: OverWords) {
  const alpha = await sharp(drawnWords(words, SIZE)).extractChannel(3).raw().toBuffer();
  const drawn = [...alpha.keys()].filter((at) => (alpha[at] ?? 0) > 40);
  const [xs, ys] = [drawn.map((at) => at % SIZE.width), drawn.map((at) => Math.floor(at / SIZE.width))];
  const least = (all: readonly number[]) =>
    all.reduce((one, other) => Math.min(one, other), Number.MAX_VALUE);
  const most = (all: readonly number[]) => all.reduce((one, other) => Math.max(one, other), -1);
  return { left: least(xs), top: least(ys), right: most(xs) + 1, bottom: most(ys) + 1 };
}

describe('words that are drawn', () => {
  it.each(['top left', 'middle', 'bottom right', 'right'] as const)(
    'at the %s lie in the boxes that they are set in',
    async (place) => {
      const words = { ...WORDS, place };
      const { lines, em } = setWords(words, SIZE);
      const drawn = await inkBox(words);
      const edge = (pick: 'left' | 'top') => Math.min(...lines.map(({ box }) => box[pick]));
      const end = (pick: 'left' | 'top', extent: 'width' | 'height') =>
        Math.max(...lines.map(({ box }) => box[pick] + box[extent]));
      const near = 0.12 * em;
      expect(Math.abs(drawn.left - edge('left'))).toBeLessThan(near);
      expect(Math.abs(drawn.right - end('left', 'width'))).toBeLessThan(near);
      expect(drawn.top).toBeGreaterThan(edge('top'));
      expect(drawn.bottom).toBeLessThan(end('top', 'height'));
    },
  );

  it('have a plate under each line', async () => {
    const box = await inkBox({ ...WORDS, plate: '#808080', ink: '#808080' });
    const { lines } = setWords({ ...WORDS, plate: '#808080' }, SIZE);
    expect(box.left).toBeCloseTo(lines[0]?.box.left ?? 0, -1);
    expect(box.bottom).toBeCloseTo((lines.at(-1)?.box.top ?? 0) + (lines.at(-1)?.box.height ?? 0), -1);
  });

  it.each([
    'The boardwalk reopens',
    'Ŵyth gŵydd, Kraków & Århus',
    'Reed-cutting days: 4–6 March',
    '“Marsh 1931”',
    'WAVE To',
  ])('are as wide as they are measured: %s', async (text) => {
    const { em } = setWords({ ...WORDS, text, place: 'top left', size: 40 }, SIZE);
    const box = await inkBox({ ...WORDS, text, place: 'top left', size: 40 });
    expect((box.right - box.left) / em / advanceOf(text)).toBeGreaterThan(0.95);
    expect((box.right - box.left) / em / advanceOf(text)).toBeLessThan(1.03);
  });

  it.each([
    ['a photograph', { create: { ...SIZE, channels: 3, background: '#203040' } }],
    [
      'a transparent picture',
      { create: { ...SIZE, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } },
    ],
  ] as const)('go into the cut of %s, and the same ones make the same bytes', async (name, input) => {
    const path = join(folder, `${name}.png`);
    await sharp(input).png().toFile(path);
    const order = {
      original: SIZE,
      recipe: { ...WHOLE, words: WORDS },
      width: 450,
      format: 'png',
      quality: 80,
      animated: false,
    } as const;
    const cut = await makeCut(path, order);
    expect(await makeCut(path, order)).toEqual(cut);
    const { lines } = setWords(WORDS, { width: 450, height: 300 });
    const box = lines[0]?.box ?? { left: 0, top: 0, width: 1, height: 1 };
    const region = {
      left: Math.round(box.left),
      top: Math.round(box.top),
      width: Math.round(box.width),
      height: Math.round(box.height),
    };
    const brightest = async (part: typeof region) =>
      Math.max(
        ...(await sharp(cut).extract(part).flatten({ background: '#000' }).greyscale().raw().toBuffer()),
      );
    expect(await brightest(region)).toBeGreaterThan(250);
    expect(await brightest({ ...region, top: 10 })).toBeLessThan(80);
  });

  it('go into the cut of a grey picture in their own colours', async () => {
    const path = join(folder, 'grey.png');
    await sharp({ create: { ...SIZE, channels: 3, background: '#404040' } })
      .toColourspace('b-w')
      .png()
      .toFile(path);
    const words = { ...WORDS, ink: '#ff0000' };
    const cut = await makeCut(path, {
      original: SIZE,
      recipe: { ...WHOLE, words },
      width: 900,
      format: 'png',
      quality: 80,
      animated: false,
    });
    const { channels } = await sharp(cut).stats();
    expect(channels[0]?.max).toBeGreaterThan(250);
    expect(channels[1]?.max).toBeLessThan(90);
  });
});
