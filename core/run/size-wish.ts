import * as v from 'valibot';
import { heightAtWidth, type Size } from '../media/dimensions.ts';
import { type Cuttable, type Recipe, recipeForRatio, sizeAfter } from '../media/recipe.ts';
import type { CutPreset } from '../page/target.ts';

/** The most px on a side that a run is asked for. */
const SIDE_LIMIT_PX = 8000;

const px = v.pipe(
  v.number(),
  v.integer('A size is in whole px.'),
  v.minValue(1, 'A size is at least 1 px.'),
  v.maxValue(SIDE_LIMIT_PX, `At most ${SIDE_LIMIT_PX} px are made.`),
);

/** One size that a run makes: a preset of the target, or a measure in px, or a share of the piece's own size. */
export const SizeWishSchema = v.variant('by', [
  v.strictObject({ by: v.literal('preset'), preset: v.pipe(v.string(), v.maxLength(40)) }),
  v.strictObject({ by: v.literal('width'), px }),
  v.strictObject({ by: v.literal('height'), px }),
  v.strictObject({ by: v.literal('long'), px }),
  v.strictObject({ by: v.literal('box'), width: px, height: px }),
  v.strictObject({
    by: v.literal('share'),
    percent: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)),
  }),
]);
export type SizeWish = v.InferOutput<typeof SizeWishSchema>;

/** What a wish comes to for one piece. `lacking` is the width in px that was asked for where the piece has fewer. */
export interface WishedCut {
  readonly recipe: Recipe;
  readonly size: Size;
  /** "16x9" where the piece is cropped to a shape, else empty: for the file's name. */
  readonly variant: string;
  readonly lacking: number | null;
}

/**
 * The cut that a wish asks of a piece. Nothing is enlarged: a piece with fewer pixels is left at its own. A piece that
 * may not be changed (`mayCrop` false) is sized whole. Undefined for a preset that there is no more.
 */
export function wishedCut(
  wish: SizeWish,
  piece: Cuttable,
  presets: readonly CutPreset[],
  mayCrop: boolean,
): WishedCut | undefined {
  const preset = wish.by === 'preset' ? presets.find(({ id }) => id === wish.preset) : undefined;
  if (wish.by === 'preset' && !preset) return undefined;
  const ratio = mayCrop ? (preset?.ratio ?? null) : null;
  const recipe = recipeForRatio(piece, ratio);
  const own = sizeAfter(piece.size, recipe);
  const wanted = preset ? preset.width : wantedWidth(wish, own);
  const width = Math.max(1, Math.min(wanted, own.width));
  return {
    recipe,
    size: { width, height: heightAtWidth(own, width) },
    variant: ratio && recipe.crop ? `${ratio.across}x${ratio.down}` : '',
    lacking: wanted > own.width ? wanted : null,
  };
}

function wantedWidth(wish: SizeWish, own: Size): number {
  switch (wish.by) {
    case 'width':
      return wish.px;
    case 'height':
      return Math.max(1, Math.round((wish.px * own.width) / own.height));
    case 'long':
      return own.width >= own.height ? wish.px : Math.max(1, Math.round((wish.px * own.width) / own.height));
    case 'box': {
      const scale = Math.min(wish.width / own.width, wish.height / own.height);
      return Math.max(1, Math.floor(own.width * scale));
    }
    case 'share':
      return Math.max(1, Math.round((own.width * wish.percent) / 100));
    case 'preset':
      return own.width;
  }
}

/** A wish as the sentence and its chip say it. */
export function saySizeWish(wish: SizeWish, presets: readonly CutPreset[]): string {
  switch (wish.by) {
    case 'preset': {
      const preset = presets.find(({ id }) => id === wish.preset);
      return preset ? `${preset.name} ${preset.width}` : 'a size that is gone';
    }
    case 'width':
      return `${wish.px} wide`;
    case 'height':
      return `${wish.px} high`;
    case 'long':
      return `${wish.px} on the long edge`;
    case 'box':
      return `within ${wish.width} × ${wish.height}`;
    case 'share':
      return `${wish.percent}%`;
  }
}

/**
 * A wish from what a person types: "480" and "480 wide", "x 600" and "600 high", "1200 long", "800 x 600", "50%".
 * Undefined for anything else.
 */
export function maybeSizeWish(typed: string): SizeWish | undefined {
  const text = typed
    .trim()
    .toLowerCase()
    .replace(/\s*px\b/g, '')
    .replace('×', 'x');
  const wish = wishOfText(text);
  return wish && v.safeParse(SizeWishSchema, wish).success ? wish : undefined;
}

function wishOfText(text: string): SizeWish | undefined {
  const share = /^(\d{1,3})\s*%$/.exec(text);
  if (share) return { by: 'share', percent: Number(share[1]) };
  const box = /^(?:within\s+)?(\d{1,5})\s*x\s*(\d{1,5})$/.exec(text);
  if (box) return { by: 'box', width: Number(box[1]), height: Number(box[2]) };
  const high = /^x\s*(\d{1,5})$/.exec(text) ?? /^(\d{1,5})\s*(?:high|tall)$/.exec(text);
  if (high) return { by: 'height', px: Number(high[1]) };
  const long = /^(\d{1,5})\s*(?:on the\s+)?long(?:\s+edge)?$/.exec(text);
  if (long) return { by: 'long', px: Number(long[1]) };
  const wide = /^(\d{1,5})(?:\s*(?:wide|x))?$/.exec(text);
  return wide ? { by: 'width', px: Number(wide[1]) } : undefined;
}
