import type { Ratio } from '../../../media/crop.ts';
import type { Size } from '../../../media/dimensions.ts';

/** So much may two shapes differ, as a share, before the picture behind is seen beside the one in front. */
const SAME_SHAPE = 0.01;

/** Whether two pictures lie over each other, shown in one width. */
export function isSameShape(one: Size, other: Size): boolean {
  return Math.abs((one.width * other.height) / (one.height * other.width) - 1) <= SAME_SHAPE;
}

const MOST = 100;

/** The shape of two whole numbers, at most 100 each, that is nearest to a width to height. */
export function shapeNear(aspect: number): Ratio {
  let best: Ratio = { across: 1, down: 1 };
  for (let down = 1; down <= MOST; down += 1) {
    const across = Math.min(MOST, Math.max(1, Math.round(aspect * down)));
    if (Math.abs(across / down - aspect) < Math.abs(best.across / best.down - aspect) - 1e-9)
      best = { across, down };
  }
  return best;
}
