import { type CropRect, cropInPixels, cropToRatio, type Point, type Ratio } from './crop.ts';
import type { Size } from './dimensions.ts';

/** What is done to an original, as data. Empty: the whole picture as it was taken. */
export interface Recipe {
  readonly crop: CropRect | null;
}

export const WHOLE: Recipe = { crop: null };

/** Fractions are kept in steps of a millionth: far under 1 px on any original that is taken. */
const STEPS = 1_000_000;

/** What of a piece decides how it is cut. `size` in px as seen; `trim` is the part inside a baked-in border, or null. */
export interface Cuttable {
  readonly size: Size;
  readonly trim: CropRect | null;
  readonly focal: Point;
}

/** The recipe that crops to a ratio round the focal point, inside the trim; all that the trim leaves for `null`. */
export function recipeForRatio({ size, trim, focal }: Cuttable, ratio: Ratio | null): Recipe {
  if (!ratio) return trim ? { crop: trim } : WHOLE;
  const crop = cropToRatio(trimmedSize(size, trim), ratio, trim ? within(trim, focal) : focal);
  if (crop.width === 1 && crop.height === 1) return trim ? { crop: trim } : WHOLE;
  return { crop: trim ? outOf(trim, crop) : crop };
}

/** The size in px of what a trim leaves; the size itself without one. */
export function trimmedSize(size: Size, trim: CropRect | null): Size {
  return sizeAfter(size, { crop: trim });
}

/** A point of the picture in fractions of the trimmed part, clamped to it. */
function within(trim: CropRect, point: Point): Point {
  const clamp = (value: number) => Math.min(1, Math.max(0, value));
  return { x: clamp((point.x - trim.left) / trim.width), y: clamp((point.y - trim.top) / trim.height) };
}

/** A part of the trimmed part in fractions of the whole picture. */
function outOf(trim: CropRect, crop: CropRect): CropRect {
  return {
    left: trim.left + crop.left * trim.width,
    top: trim.top + crop.top * trim.height,
    width: crop.width * trim.width,
    height: crop.height * trim.height,
  };
}

/** The size in px of what the recipe makes of an original, before any resizing. */
export function sizeAfter(original: Size, recipe: Recipe): Size {
  if (!recipe.crop) return original;
  const { width, height } = cropInPixels(original, recipe.crop);
  return { width, height };
}

/**
 * A stable short name of a recipe, safe in a path: equal recipes have equal keys, and `maybeRecipe` reads it
 * back. Serves as the recipe's hash in addresses and in the cache of cuts.
 */
export function recipeKey(recipe: Recipe): string {
  if (!recipe.crop) return 'whole';
  const { left, top, width, height } = recipe.crop;
  const start = [left, top].map((fraction) => Math.round(fraction * STEPS));
  const extent = [width, height].map((fraction) => Math.max(1, Math.round(fraction * STEPS)));
  return `c${[...start, ...extent].join('-')}`;
}

const KEY = /^c(\d{1,7})-(\d{1,7})-(\d{1,7})-(\d{1,7})$/;

/** The recipe of a key, or undefined for anything that is not one. */
export function maybeRecipe(key: string): Recipe | undefined {
  if (key === 'whole') return WHOLE;
  const [left, top, width, height] = (KEY.exec(key) ?? []).slice(1).map((n) => Number(n) / STEPS);
  if (left === undefined || top === undefined || !width || !height) return undefined;
  if (left + width > 1 + 2 / STEPS || top + height > 1 + 2 / STEPS) return undefined;
  return { crop: { left, top, width: Math.min(width, 1 - left), height: Math.min(height, 1 - top) } };
}

/**
 * Whether the recipe changes what is seen, which licences may forbid and credits may have to say. Leaving out a
 * border that a scan or a page put round the picture takes nothing of the work away, and is no change.
 */
export function changesOf(recipe: Recipe, trim: CropRect | null): readonly 'cropped'[] {
  if (!recipe.crop) return [];
  return trim && recipeKey(recipe) === recipeKey({ crop: trim }) ? [] : ['cropped'];
}
