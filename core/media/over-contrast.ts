import { contrastRatio, luminance, type Rgb, rgbOf } from './colour.ts';
import type { Point } from './crop.ts';
import type { Size } from './dimensions.ts';
import { heightAtWidth } from './dimensions.ts';
import { type OverWords, type PixelBox, setWords } from './over-words.ts';
import { type Cuttable, focalOfOriginal, type Recipe, sizeAfter } from './recipe.ts';
import { type ColourMatrix, toneMatrix } from './tone.ts';

/** The original as seen, as a few px: red, green and blue of each, 0 to 255, row by row. */
export interface Lights {
  readonly columns: number;
  readonly rows: number;
  readonly rgb: readonly number[];
}

/** Points that are looked at under each line, across and down. */
const ACROSS = 24;
const DOWN = 4;
/** The share of those points that may be worse than what is said: one bright reed is not the ground of a word. */
const WORST_SHARE = 0.1;

/**
 * The contrast of words with the part of the cut that they lie on, 1 to 21 (WCAG 2.2, 1.4.3), where it is poorest. On
 * a plate, with the plate. `size` is that of the cut, in px.
 */
export function contrastOver(
  piece: Cuttable,
  recipe: Recipe,
  words: OverWords,
  size: Size,
  lights: Lights,
): number {
  const boxes = setWords(words, size).lines.map(({ box }) => box);
  return contrastIn(piece, recipe, words, boxes, size, lights);
}

/** The same of words that lie in given boxes, in px of the cut as it is shown at a size. */
export function contrastIn(
  piece: Cuttable,
  recipe: Recipe,
  { ink, plate }: Pick<OverWords, 'ink' | 'plate'>,
  boxes: readonly PixelBox[],
  size: Size,
  lights: Lights,
): number {
  const light = luminance(rgbOf(ink));
  if (plate) return contrastRatio(light, luminance(rgbOf(plate)));
  const under = underOf(piece, recipe, size, lights);
  const contrasts = boxes
    .flatMap(pointsIn)
    .map((point) => contrastRatio(light, luminance(under(point))))
    .sort((one, other) => one - other);
  return contrasts[Math.floor(contrasts.length * WORST_SHARE)] ?? contrastRatio(light, 1);
}

function pointsIn({ left, top, width, height }: PixelBox): readonly Point[] {
  return Array.from({ length: ACROSS * DOWN }, (_, at) => ({
    x: left + (((at % ACROSS) + 0.5) / ACROSS) * width,
    y: top + ((Math.floor(at / ACROSS) + 0.5) / DOWN) * height,
  }));
}

/** What colour a px of the cut has, by the steps of its recipe. */
function underOf(piece: Cuttable, recipe: Recipe, size: Size, lights: Lights): (point: Point) => Rgb {
  const { pad } = recipe;
  const inner = sizeAfter(piece.size, { ...recipe, pad: null });
  const outer = sizeAfter(piece.size, recipe);
  const [wide, high] = [inner.width / outer.width, inner.height / outer.height];
  const off = piece.prep.disabledSteps.filter((step) => step !== 'crop');
  const cut: Cuttable = { ...piece, prep: { ...piece.prep, crop: recipe.crop, disabledSteps: off } };
  const matrix = recipe.tone ? toneMatrix(recipe.tone) : null;
  return ({ x, y }) => {
    const [across, down] = [
      (x / size.width - (1 - wide) / 2) / wide,
      (y / size.height - (1 - high) / 2) / high,
    ];
    if (pad && (across < 0 || across > 1 || down < 0 || down > 1)) return rgbOf(pad.backgroundColour);
    const colour = lightAt(lights, focalOfOriginal(cut, { x: across, y: down }));
    return matrix ? toned(colour, matrix) : colour;
  };
}

function lightAt({ columns, rows, rgb }: Lights, { x, y }: Point): Rgb {
  const column = Math.min(columns - 1, Math.floor(x * columns));
  const row = Math.min(rows - 1, Math.floor(y * rows));
  const channel = (at: number) => (rgb[(row * columns + column) * 3 + at] ?? 0) / 255;
  return [channel(0), channel(1), channel(2)];
}

function toned([red, green, blue]: Rgb, matrix: ColourMatrix): Rgb {
  const channel = (at: 0 | 1 | 2) => {
    const [r, g, b, add] = matrix[at];
    return Math.min(1, Math.max(0, r * red + g * green + b * blue + add));
  };
  return [channel(0), channel(1), channel(2)];
}

/** Words from this size in px on are large, and need less contrast (WCAG 2.2, "large scale": 18 pt). */
const LARGE_PX = 24;
const NEED = { large: 3, ordinary: 4.5 } as const;

/** The contrast that words need at the width in px at which their picture is shown. */
export function neededContrast(words: OverWords, shown: Size): number {
  return neededAt(setWords(words, shown).em);
}

/** The contrast that words of a size in px need. */
export function neededAt(em: number): number {
  return em >= LARGE_PX ? NEED.large : NEED.ordinary;
}

/** How words stand out from what they lie on, in a sentence with its way out. */
export function sayContrast(contrast: number, needed: number, hasPlate: boolean): string {
  const figure = (Math.floor(contrast * 10) / 10).toFixed(1);
  if (contrast >= needed) return `Contrast ${figure}, ${needed} is needed.`;
  const way = hasPlate ? 'Choose other colours.' : 'Choose another ink or place, or lay a plate under them.';
  return `Contrast ${figure} where it is poorest, ${needed} is needed. ${way}`;
}

/** Each ink stands out from one of these by 4.5 at least. */
const PLATES = ['#172126', '#ffffff', '#000000'] as const;

/** The plate that is offered for words of an ink: the first from which it stands out. */
export function plateFor(ink: string): string {
  const light = luminance(rgbOf(ink));
  const standsOut = (plate: string) => contrastRatio(light, luminance(rgbOf(plate))) >= NEED.ordinary;
  return PLATES.find(standsOut) ?? PLATES[0];
}

/** The size in px of a cut of a recipe at a width. */
export function cutSizeAt(piece: Pick<Cuttable, 'size'>, recipe: Recipe, width: number): Size {
  return { width, height: heightAtWidth(sizeAfter(piece.size, recipe), width) };
}
