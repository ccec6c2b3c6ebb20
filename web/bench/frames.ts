import type { CropRect, Ratio } from '#core/media/crop.ts';
import type { Prep } from '#core/media/recipe.ts';

export function sameRatio(one: Ratio, other: Ratio): boolean {
  return one.across * other.down === other.across * one.down;
}

/** The prep with a crop set by hand for a shape. */
export function withFrame(prep: Prep, ratio: Ratio, crop: CropRect): Prep {
  return { ...prep, frames: [...withoutFrame(prep, ratio).frames, { ratio, crop }] };
}

/** The prep whose cuts of a shape follow the focal point again. */
export function withoutFrame(prep: Prep, ratio: Ratio): Prep {
  return { ...prep, frames: prep.frames.filter((frame) => !sameRatio(frame.ratio, ratio)) };
}

/** The prep cropped for every use; null gives the picture its own shape back. */
export function withCrop(prep: Prep, crop: CropRect | null): Prep {
  const isAll = crop !== null && crop.width > 0.9999 && crop.height > 0.9999;
  return { ...prep, crop: isAll ? null : crop };
}
