import type { CSSProperties } from 'react';
import type { CropRect } from '#core/media/crop.ts';
import { type Cuttable, sizeAfter, trimmedSize, wholeRecipe } from '#core/media/recipe.ts';
import { sharpKernel, svgMatrix, toneMatrix } from '#core/media/tone.ts';

interface PreparedProps {
  readonly piece: Cuttable;
  /** The original as it came. */
  readonly view: string;
  /** Width in px at which the crop is shown. */
  readonly width: number;
  /** The part that is shown, of what straightening leaves; null shows the piece as it is cropped for every use. */
  readonly crop: CropRect | null;
  readonly alt: string;
}

/**
 * A piece as its recipe makes it, live: the original is trimmed, turned, mirrored, straightened and toned by the
 * browser as it is drawn, with the same sizes and the same colour matrix that the server cuts with.
 */
export function Prepared({ piece, view, width, crop, alt }: PreparedProps) {
  const recipe = wholeRecipe(piece);
  const whole = sizeAfter(piece.size, { ...recipe, crop: null });
  const shown = crop ?? recipe.crop ?? { left: 0, top: 0, width: 1, height: 1 };
  const scale = width / (shown.width * whole.width);
  const trim = recipe.trim ?? { left: 0, top: 0, width: 1, height: 1 };
  const trimmed = trimmedSize(piece.size, recipe.trim);
  const box: CSSProperties = {
    width: trimmed.width * scale,
    height: trimmed.height * scale,
    left: (0.5 - shown.left) * whole.width * scale,
    top: (0.5 - shown.top) * whole.height * scale,
    transform: `translate(-50%, -50%) rotate(${recipe.straighten / 10}deg) scaleX(${recipe.mirror ? -1 : 1}) rotate(${recipe.turn}deg)`,
  };
  const image: CSSProperties = {
    width: piece.size.width * scale,
    height: piece.size.height * scale,
    left: -trim.left * piece.size.width * scale,
    top: -trim.top * piece.size.height * scale,
  };
  return (
    <span
      className="relative block overflow-hidden"
      style={{
        width,
        height: shown.height * whole.height * scale,
        ...(recipe.tone || recipe.sharpness > 0 ? { filter: 'url(#prepared-tone)' } : {}),
        ...(recipe.backgroundColour ? { background: recipe.backgroundColour } : {}),
      }}
    >
      <span className="absolute block overflow-hidden will-change-transform" style={box}>
        <img className="absolute max-w-none" src={view} alt={alt} style={image} draggable={false} />
      </span>
    </span>
  );
}

/** The tone of the piece that is prepared, once for every picture of it on the screen. */
export function ToneFilter({ piece }: { readonly piece: Cuttable }) {
  const { tone, sharpness } = wholeRecipe(piece);
  if (!tone && sharpness === 0) return null;
  return (
    <svg width="0" height="0" aria-hidden="true" className="absolute">
      <filter id="prepared-tone" colorInterpolationFilters="sRGB" x="0" y="0" width="1" height="1">
        {tone ? <feColorMatrix type="matrix" values={svgMatrix(toneMatrix(tone))} /> : null}
        {sharpness > 0 ? (
          <feConvolveMatrix order="3" kernelMatrix={sharpKernel(sharpness).join(' ')} preserveAlpha="true" />
        ) : null}
      </filter>
    </svg>
  );
}
