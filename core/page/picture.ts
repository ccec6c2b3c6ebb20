import { heightAtWidth, type Size } from '../media/dimensions.ts';
import { CUT_FORMATS, type CutFormat, cutFormats } from '../media/formats.ts';
import { chosenWidth, widthLadder } from '../media/ladder.ts';
import type { OverWords } from '../media/over-words.ts';
import { qualityFor } from '../media/quality.ts';
import {
  fittedRecipe,
  type Prep,
  type Recipe,
  recipeForRatio,
  sizeAfter,
  wholeRecipe,
} from '../media/recipe.ts';
import { recipeKey } from '../media/recipe-key.ts';
import { cutFileName } from '../naming/clash.ts';
import { shortHash } from '../naming/short-hash.ts';
import type { Placement } from './blocks/placement/schema.ts';
import { shownWidth, sizesAttribute, widthSegments } from './layout.ts';
import { embedOf, type Piece } from './piece.ts';
import { isSameRoom, type Room } from './room.ts';
import type { Standing } from './standing.ts';
import type { HouseRules } from './target.ts';

/** One file to be made from an original. Its name is unique within a page's pieces. */
export interface Cut {
  readonly assetId: string;
  readonly recipe: Recipe;
  readonly format: CutFormat;
  readonly size: Size;
  /** The encoder's own scale. */
  readonly quality: number;
  readonly fileName: string;
}

/** All that is settled about one placement's picture before a byte is made. */
export interface PicturePlan {
  readonly recipe: Recipe;
  /** The words that stand over it as text of the page; drawn ones are in the recipe. */
  readonly over: OverWords | null;
  /** What the recipe makes of the original, before resizing. */
  readonly cutSize: Size;
  readonly ladder: readonly number[];
  readonly formats: readonly [...CutFormat[], CutFormat];
  /** The `sizes` attribute; made when it is asked for, since only writing needs it. */
  readonly sizes: () => string;
  /** By format, the cuts of the ladder from narrow to wide. */
  readonly cutsOf: (format: CutFormat) => readonly Cut[];
  /** What a browser that knows neither `srcset` nor newer formats gets. */
  readonly fallback: Cut;
  /** What "opens larger" shows, or null. */
  readonly larger: Cut | null;
}

/** A piece with what is done to it in one use: its own recipe, or the one of the placement alone. */
export function preparedHere<P extends Pick<Piece, 'prep'>>({ prep }: Pick<Placement, 'prep'>, piece: P): P {
  return prep ? { ...piece, prep } : piece;
}

/** The shape of a use: its own, or that of the frame whose poster it is. */
function ratioHere({ ratio }: Pick<Placement, 'ratio'>, piece: Piece): Placement['ratio'] {
  const shape = embedOf(piece)?.embed.shape;
  if (ratio || shape?.kind !== 'ratio') return ratio;
  const { across, down } = shape;
  return across <= 100 && down <= 100 ? { across, down } : null;
}

/** What a placement makes of its piece: cut to its shape, or fitted into it whole on a ground. */
export function recipeHere(
  placement: Pick<Placement, 'ratio' | 'backgroundColour' | 'prep'>,
  piece: Piece,
): Recipe {
  const { backgroundColour } = placement;
  const ratio = ratioHere(placement, piece);
  const { size, trim, prep, label } = preparedHere(placement, piece);
  if (ratio && backgroundColour) return fittedRecipe({ size, trim, prep }, { ratio, backgroundColour });
  return recipeForRatio({ size, trim, prep, focal: label.focal }, ratio);
}

/** The size of what is shown of a piece in one use, before resizing. */
export function shownSize(placement: Parameters<typeof recipeHere>[0], piece: Piece): Size {
  return sizeAfter(piece.size, recipeHere(placement, piece));
}

/** What goes into the file, and the words over it that stand in the page instead, where they are not drawn. */
export function wordsApart(
  recipe: Recipe,
  isDrawn: boolean,
): { readonly recipe: Recipe; readonly over: OverWords | null } {
  return isDrawn || !recipe.words
    ? { recipe, over: null }
    : { recipe: { ...recipe, words: null }, over: recipe.words };
}

/** A picture opened larger is shown at most this wide. */
const LARGER_PX = 2400;

/** Settled once for each placement as it stands: a page's writer asks for it, and nearly each check of its proof. */
const planned = new WeakMap<
  Placement,
  {
    readonly rules: HouseRules;
    readonly piece: Piece;
    readonly room: Room;
    readonly plan: PicturePlan;
  }
>();

/** Settles recipe, widths, formats and names of a placement's picture on a target, in the room that it stands in. */
export function planPicture(rules: HouseRules, { placement, room }: Standing, piece: Piece): PicturePlan {
  const known = planned.get(placement);
  if (known?.rules === rules && known.piece === piece && isSameRoom(known.room, room)) return known.plan;
  const plan = plannedAnew(rules, placement, room, piece);
  planned.set(placement, { rules, piece, room, plan });
  return plan;
}

function plannedAnew(rules: HouseRules, placement: Placement, room: Room, piece: Piece): PicturePlan {
  const whole = recipeHere(placement, piece);
  const { recipe, over } = wordsApart(whole, rules.wordsOver === 'drawn');
  const cutSize = sizeAfter(piece.size, recipe);
  const viewports = [...new Set([...rules.proofWidths, ...rules.breakpoints])];
  const ladder = widthLadder(
    viewports.map((viewport) => shownWidth(rules, placement, room, viewport)),
    cutSize.width,
  );
  // A ground under the transparent parts leaves nothing to see through.
  const alpha = piece.alpha && recipe.backgroundColour === null;
  const formats = cutFormats({ alpha, animated: piece.animated, widest: ladder.at(-1) ?? 1 });
  const fallbackFormat = formats[formats.length - 1] ?? 'jpeg';
  const variant = variantOf(placement, recipe);
  const cut = (format: CutFormat, width: number): Cut => ({
    assetId: piece.id,
    recipe,
    format,
    size: { width, height: heightAtWidth(cutSize, width) },
    quality: qualityFor(rules, preparedHere(placement, piece).prep, format),
    fileName: cutFileName(piece.stem, variant, width, CUT_FORMATS[format].extension),
  });
  const widest = Math.max(...rules.proofWidths);
  return {
    recipe,
    over,
    cutSize,
    ladder,
    formats,
    sizes: () => sizesAttribute(widthSegments(rules, placement, room)),
    cutsOf: (format) => ladder.map((width) => cut(format, width)),
    fallback: cut(fallbackFormat, chosenWidth(ladder, shownWidth(rules, placement, room, widest), 1)),
    larger:
      placement.click.kind === 'larger' ? cut(fallbackFormat, Math.min(LARGER_PX, cutSize.width)) : null,
  };
}

/**
 * What tells the files of one use from those of another of the same piece: its shape, the ground it is fitted on, and
 * what is done to it there alone.
 */
function variantOf({ ratio, prep }: Placement, recipe: Recipe): string {
  const { crop, pad } = recipe;
  const shape = ratio && (crop || pad) ? `${ratio.across}x${ratio.down}` : '';
  const ground = pad ? `on-${pad.backgroundColour.slice(1)}` : '';
  const own = prep ? shortHash(recipeKey(recipe)) : '';
  return [shape, ground, own].filter(Boolean).join('-');
}

/** Every file of a placement's picture. */
export function allCuts(plan: PicturePlan): readonly Cut[] {
  return [...plan.formats.flatMap((format) => plan.cutsOf(format)), ...(plan.larger ? [plan.larger] : [])];
}

/** Names how a piece looks with a recipe before it is cut to a shape, for the pictures that screens show. */
export function viewKey(assetId: string, { trim }: Pick<Piece, 'trim'>, prep: Prep): string {
  return `${assetId} ${recipeKey(wholeRecipe({ trim, prep }))}`;
}
