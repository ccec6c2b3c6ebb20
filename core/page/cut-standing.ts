import { type Cuttable, focalIn, frameFor, frameIn, recipeForRatio, sizeAfter } from '../media/recipe.ts';
import type { CutPreset } from './target.ts';

/** How a cut of a target stands for a piece: its size before resizing, and whether something is wrong, in a sentence. */
export interface CutStanding {
  /** Of what the recipe leaves, in px. */
  readonly size: { readonly width: number; readonly height: number };
  /** How many times the pixels that the target needs. */
  readonly times: number;
  readonly sentence: string;
  readonly isDue: boolean;
}

/** A focal point nearer to the edge of a cut than this share is all but cut off. */
const NEAR_EDGE = 0.08;

/** How one of a target's cuts stands: pixels against need, the focal point against its edges. */
export function standingOf(piece: Cuttable, preset: CutPreset): CutStanding {
  const recipe = recipeForRatio(piece, preset.ratio);
  const size = sizeAfter(piece.size, recipe);
  const isFramed = preset.ratio !== null && frameFor(piece.prep, preset.ratio) !== undefined;
  const times = size.width / preset.width;
  const say = (sentence: string, isDue: boolean) => ({ size, times, sentence, isDue });
  if (times < 1) return say(`Enlarged ${(1 / times).toFixed(1)} times: it has ${size.width} px.`, true);
  const inner = preset.ratio ? frameIn(piece, preset.ratio) : null;
  const isCropped = inner !== null && (inner.width < 1 || inner.height < 1);
  if (inner && isCropped && isNearEdge(piece, inner)) return say('The focal point is at its edge.', true);
  if (isFramed) return say('Framed by you.', false);
  return say(isCropped ? 'From the focal point.' : 'Nothing cropped.', false);
}

function isNearEdge(
  piece: Cuttable,
  crop: { readonly left: number; readonly top: number; readonly width: number; readonly height: number },
): boolean {
  const focal = focalIn(piece);
  const x = (focal.x - crop.left) / crop.width;
  const y = (focal.y - crop.top) / crop.height;
  // A focal point that is set at the picture's own edge cannot be kept away from it.
  const free = (value: number) => value > NEAR_EDGE && value < 1 - NEAR_EDGE;
  return (free(focal.x) && !free(x)) || (free(focal.y) && !free(y));
}

/** How sharp so many times the needed pixels are. */
export function saySharpness(times: number): string {
  if (times < 1) return 'It turns soft and blocky.';
  return times < 2 ? 'A little soft on sharp screens.' : 'Sharp on every screen.';
}
