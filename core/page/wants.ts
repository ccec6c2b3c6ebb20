import { shapeOf } from '../media/dimensions.ts';
import { wholeSize } from '../media/recipe.ts';
import type { Want } from './model.ts';
import type { Piece } from './piece.ts';

/** Why a piece does not suit a want, in a sentence; undefined when it does. */
export function wantMisfit(want: Want, piece: Piece): string | undefined {
  const size = wholeSize(piece);
  if (size.width < want.leastWidth) {
    return `It is ${size.width} px wide; “${want.purpose}” asks for at least ${want.leastWidth}.`;
  }
  const shape = shapeOf(size);
  if (want.shape !== 'any' && want.shape !== shape) {
    return `It is ${shape}; “${want.purpose}” asks for ${want.shape}. It can be cut to that.`;
  }
  return undefined;
}
