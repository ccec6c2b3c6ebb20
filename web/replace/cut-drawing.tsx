import type { Asset } from '#api/assets.ts';
import { frameIn, sizeAfter } from '#core/media/recipe.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { preparedHere, recipeHere } from '#core/page/picture.ts';
import { pieceOf } from '../pieces/pieces.ts';

/** So high at most, in hundredths of the window, that two fit below each other. */
const HIGHEST_VH = 22;

interface CutDrawingProps {
  readonly asset: Asset;
  readonly placement: Placement;
  readonly alt: string;
}

/** A piece as one placement cuts it. */
export function CutDrawing({ asset, placement, alt }: CutDrawingProps) {
  const piece = preparedHere(placement, pieceOf(asset));
  const recipe = recipeHere(placement, piece);
  const { width, height } = sizeAfter(piece.size, recipe);
  const frame =
    placement.ratio && !recipe.pad
      ? frameIn({ ...piece, focal: piece.label.focal }, placement.ratio)
      : { left: 0, top: 0, width: 1, height: 1 };
  return (
    <span
      className="relative block w-full overflow-hidden bg-stage"
      style={{ aspectRatio: `${width} / ${height}`, maxWidth: `${(HIGHEST_VH * width) / height}vh` }}
    >
      <img
        className="absolute max-w-none"
        style={{
          width: `${100 / frame.width}%`,
          height: `${100 / frame.height}%`,
          left: `${(-frame.left / frame.width) * 100}%`,
          top: `${(-frame.top / frame.height) * 100}%`,
        }}
        src={asset.view}
        alt={alt}
      />
    </span>
  );
}
