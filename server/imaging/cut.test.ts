import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  AS_IT_CAME,
  fittedRecipe,
  type Recipe,
  recipeForRatio,
  sizeAfter,
  WHOLE,
} from '#core/media/recipe.ts';
import { PLAIN_TONE, type Tone, toneMatrix } from '#core/media/tone.ts';
import { makeCut } from './cut.ts';

const SIZE = { width: 600, height: 400 };
/** Red, green, blue and yellow, from top left to bottom right. */
const CORNERS = ['#c03020', '#208040', '#2040c0', '#d0c020'] as const;

let original: string;
beforeAll(async () => {
  original = join(await mkdtemp(join(tmpdir(), 'placard-cut-')), 'original.png');
  const quarter = (colour: string, left: number, top: number) => ({
    input: { create: { width: 300, height: 200, channels: 3 as const, background: colour } },
    left,
    top,
  });
  await sharp({ create: { ...SIZE, channels: 3, background: '#000' } })
    .composite([
      quarter(CORNERS[0], 0, 0),
      quarter(CORNERS[1], 300, 0),
      quarter(CORNERS[2], 0, 200),
      quarter(CORNERS[3], 300, 200),
    ])
    .png()
    .toFile(original);
});

const order = (recipe: Recipe, width: number) => ({
  original: SIZE,
  recipe,
  width,
  format: 'png' as const,
  quality: 100,
  animated: false,
});

async function pixelsOf(recipe: Recipe, width = sizeAfter(SIZE, recipe).width) {
  const { data, info } = await sharp(await makeCut(original, order(recipe, width)))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => {
    const place = (Math.floor(y * (info.height - 1)) * info.width + Math.floor(x * (info.width - 1))) * 3;
    return [data[place] ?? 0, data[place + 1] ?? 0, data[place + 2] ?? 0] as const;
  };
  return { width: info.width, height: info.height, at };
}

const rgb = (colour: string) => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));

/** The colours in the four corners, as indexes into CORNERS. */
async function cornersOf(recipe: Recipe): Promise<readonly number[]> {
  const { at } = await pixelsOf(recipe);
  return [
    [0.1, 0.1],
    [0.9, 0.1],
    [0.1, 0.9],
    [0.9, 0.9],
  ].map(([x = 0, y = 0]) =>
    CORNERS.findIndex((colour) => rgb(colour).every((value, c) => Math.abs(value - (at(x, y)[c] ?? 0)) < 6)),
  );
}

describe('a cut', () => {
  it.each([
    ['as it came', {}, [0, 1, 2, 3]],
    ['turned right', { turn: 90 }, [2, 0, 3, 1]],
    ['turned over', { turn: 180 }, [3, 2, 1, 0]],
    ['turned left', { turn: 270 }, [1, 3, 0, 2]],
    ['mirrored', { mirror: true }, [1, 0, 3, 2]],
    ['turned right, then mirrored', { turn: 90, mirror: true }, [0, 2, 1, 3]],
    ['straightened', { straighten: 40 }, [0, 1, 2, 3]],
  ] as const)(
    '%s has its colours where they belong, and the size that core says',
    async (_words, part, corners) => {
      const recipe = { ...WHOLE, ...part };
      expect(await cornersOf(recipe)).toEqual(corners);
      const { width, height } = await pixelsOf(recipe);
      expect({ width, height }).toEqual(sizeAfter(SIZE, recipe));
    },
  );

  it('straightened shows nothing from outside the picture', async () => {
    for (const straighten of [-150, -37, 8, 150]) {
      const { at } = await pixelsOf({ ...WHOLE, straighten });
      for (const [x, y] of [
        [0, 0],
        [1, 0],
        [0, 1],
        [1, 1],
        [0.5, 0],
        [0, 0.5],
      ] as const)
        expect(
          at(x, y).reduce((sum, value) => sum + value, 0),
          `${straighten} at ${x}, ${y}`,
        ).toBeGreaterThan(150);
    }
  });

  it('cropped inside a trim takes from inside both', async () => {
    const trim = { left: 0.5, top: 0, width: 0.5, height: 1 };
    const crop = { left: 0, top: 0.5, width: 1, height: 0.5 };
    const { at, width, height } = await pixelsOf({ ...WHOLE, trim, crop });
    expect({ width, height }).toEqual({ width: 300, height: 200 });
    for (const [x, y] of [
      [0.1, 0.1],
      [0.9, 0.9],
    ] as const)
      expect(rgb(CORNERS[3]).every((value, c) => Math.abs(value - (at(x, y)[c] ?? 0)) < 4)).toBe(true);
  });

  it('cropped for every use is cut to a shape from inside that', async () => {
    // The lower right quarter, all yellow, and a square of it.
    const prep = { ...AS_IT_CAME, crop: { left: 0.5, top: 0.5, width: 0.5, height: 0.5 } };
    const piece = { size: SIZE, trim: null, prep, focal: { x: 0.75, y: 0.75 } };
    const square = recipeForRatio(piece, { across: 1, down: 1 });
    expect(sizeAfter(SIZE, square)).toEqual({ width: 200, height: 200 });
    expect(await cornersOf(square)).toEqual([3, 3, 3, 3]);
    expect(sizeAfter(SIZE, recipeForRatio(piece, null))).toEqual({ width: 300, height: 200 });
  });

  it('fitted whole into a shape stands in its middle, on its ground, at any width', async () => {
    const piece = { size: SIZE, trim: null, prep: AS_IT_CAME };
    const square = fittedRecipe(piece, { ratio: { across: 1, down: 1 }, backgroundColour: '#e9edee' });
    for (const width of [600, 301, 64]) {
      const { at, ...size } = await pixelsOf(square, width);
      expect(size).toEqual({ width, height: width });
      expect(at(0.5, 0.02)).toEqual(rgb('#e9edee'));
      expect(at(0.5, 0.98)).toEqual(rgb('#e9edee'));
      expect(at(0.1, 0.3)).toEqual(rgb(CORNERS[0]));
      expect(at(0.9, 0.7)).toEqual(rgb(CORNERS[3]));
    }
    const tall = fittedRecipe(piece, { ratio: { across: 3, down: 1 }, backgroundColour: '#000000' });
    const { at } = await pixelsOf(tall, 300);
    expect(at(0.02, 0.5)).toEqual([0, 0, 0]);
    expect(at(0.98, 0.5)).toEqual([0, 0, 0]);
  });

  it('sharpened differs at edges, and nowhere else', async () => {
    const crisp = await pixelsOf({ ...WHOLE, sharpness: 60 }, 300);
    expect(crisp.at(0.2, 0.2)).toEqual(rgb(CORNERS[0]));
    const plain = await pixelsOf(WHOLE, 300);
    const [edge, plainEdge] = [crisp.at(0.4985, 0.2), plain.at(0.4985, 0.2)];
    expect(edge).not.toEqual(plainEdge);
  });

  it('is the same to the byte each time', async () => {
    const recipe = { ...WHOLE, turn: 90, straighten: 21, tone: { ...PLAIN_TONE, light: 12 } } as const;
    const one = await makeCut(original, { ...order(recipe, 200), format: 'jpeg', quality: 80 });
    const two = await makeCut(original, { ...order(recipe, 200), format: 'jpeg', quality: 80 });
    expect(one.equals(two)).toBe(true);
  });

  it.each<[string, Partial<Tone>]>([
    ['lighter', { light: 30 }],
    ['darker, with more contrast', { light: -25, contrast: 60 }],
    ['with less colour, warmer', { colour: -60, warmth: 70 }],
    ['in black and white', { monochrome: true, contrast: 20 }],
    ['in two inks', { inks: { dark: '#0f5c4d', light: '#fde9e1' } }],
  ])('%s has the very colours that the matrix gives, within one step', async (_words, part) => {
    const tone = { ...PLAIN_TONE, ...part };
    const { at } = await pixelsOf({ ...WHOLE, tone });
    for (const [index, [x, y]] of (
      [
        [0.1, 0.1],
        [0.9, 0.1],
        [0.1, 0.9],
        [0.9, 0.9],
      ] as const
    ).entries()) {
      const [r = 0, g = 0, b = 0] = rgb(CORNERS[index] ?? '#000000');
      toneMatrix(tone).forEach(([fromR, fromG, fromB, add], channel) => {
        const wanted = Math.min(255, Math.max(0, fromR * r + fromG * g + fromB * b + add * 255));
        expect(Math.abs((at(x, y)[channel] ?? 0) - wanted)).toBeLessThanOrEqual(1.5);
      });
    }
  });

  it('never has another size than the page says that it has', async () => {
    for (const ratio of [
      { across: 16, down: 9 },
      { across: 4, down: 5 },
      { across: 1, down: 100 },
    ]) {
      for (const turn of [0, 90] as const) {
        const prep = { ...AS_IT_CAME, turn, straighten: 13 };
        const recipe = recipeForRatio({ size: SIZE, trim: null, prep, focal: { x: 0.3, y: 0.6 } }, ratio);
        const { width, height } = await pixelsOf(recipe);
        expect({ width, height }).toEqual(sizeAfter(SIZE, recipe));
      }
    }
  });
});

describe('a cut of a grey original', () => {
  it.each([
    ['of three channels', 'srgb', {}],
    ['of one channel', 'b-w', {}],
    ['of one channel, turned and mirrored', 'b-w', { turn: 180 as const, mirror: true }],
  ])('is toned in colour, %s', async (_, space, part) => {
    const grey = `${original}.${space}.jpg`;
    await sharp({ create: { ...SIZE, channels: 3, background: '#808080' } })
      .toColourspace(space)
      .jpeg()
      .toFile(grey);
    const tone = { ...PLAIN_TONE, warmth: 60 };
    const cut = await makeCut(grey, order({ ...WHOLE, ...part, tone }, 60));
    const { dominant } = await sharp(cut).stats();
    expect(dominant.r).toBeGreaterThan(dominant.b + 10);
  });

  it('is laid on a ground where it is transparent, when it has one', async () => {
    const clear = join(await mkdtemp(join(tmpdir(), 'placard-cut-')), 'clear.png');
    await sharp({ create: { ...SIZE, channels: 4, background: { r: 10, g: 20, b: 30, alpha: 0 } } })
      .png()
      .toFile(clear);
    const bytes = await makeCut(clear, order({ ...WHOLE, backgroundColour: '#dce1e3' }, 60));
    const { data, info } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true });
    expect([...data.subarray(0, 3)]).toEqual(rgb('#dce1e3'));
    if (info.channels === 4) expect(data[3]).toBe(255);
  });

  it('keeps its transparency', async () => {
    const see = `${original}.see.png`;
    await sharp({ create: { ...SIZE, channels: 4, background: { r: 90, g: 90, b: 90, alpha: 0.5 } } })
      .toColourspace('b-w')
      .png()
      .toFile(see);
    const cut = await makeCut(see, order({ ...WHOLE, tone: { ...PLAIN_TONE, light: 10 } }, 60));
    const { data, info } = await sharp(cut).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    expect(info.channels).toBe(4);
    expect(data[3]).toBeGreaterThan(120);
    expect(data[3]).toBeLessThan(135);
  });
});

describe('a cut of a picture that moves', () => {
  const frames = ['#c03020', '#208040', '#2040c0'];
  const moving = async () => {
    const path = `${original}.gif`;
    const still = (colour: string) =>
      sharp({ create: { width: 120, height: 80, channels: 3, background: colour } })
        .png()
        .toBuffer();
    await sharp(await Promise.all(frames.map(still)), { join: { animated: true } })
      .gif({ delay: [100, 200, 300], loop: 2 })
      .toFile(path);
    return path;
  };
  const orderOf = (recipe: Recipe, width: number) => ({
    original: { width: 120, height: 80 },
    recipe,
    width,
    format: 'webp' as const,
    quality: 90,
    animated: true,
  });

  it.each([
    ['as it came', WHOLE, 60, 40],
    ['cropped', { ...WHOLE, crop: { left: 0.25, top: 0, width: 0.5, height: 0.75 } }, 60, 60],
    ['turned', { ...WHOLE, turn: 90 as const }, 40, 60],
    ['toned', { ...WHOLE, tone: { ...PLAIN_TONE, light: 10 } }, 60, 40],
  ])('still moves at its pace, %s, and has the size that core says', async (_, recipe, width, height) => {
    const cut = await makeCut(await moving(), orderOf(recipe, width));
    const facts = await sharp(cut, { animated: true }).metadata();
    expect(facts.pages).toBe(3);
    expect([facts.width, facts.pageHeight]).toEqual([width, height]);
    expect(facts.delay).toEqual([100, 200, 300]);
    expect(facts.loop).toBe(2);
    const { dominant } = await sharp(cut, { page: 1 }).stats();
    expect(dominant.g).toBeGreaterThan(dominant.r);
  });

  it('as its still fallback is its first frame', async () => {
    const cut = await makeCut(await moving(), { ...orderOf({ ...WHOLE, turn: 90 }, 40), format: 'jpeg' });
    const { dominant } = await sharp(cut).stats();
    expect(dominant.r).toBeGreaterThan(dominant.g);
  });
});
