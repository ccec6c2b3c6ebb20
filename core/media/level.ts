import type { Point } from './crop.ts';

/**
 * How far a picture has to turn, in tenths of a degree clockwise, so that a line drawn on it lies level; a line nearer to
 * upright than to level is made upright. Points in px of the picture as it is shown, y downwards. Null for a line
 * shorter than `leastPx`, whose direction says nothing.
 */
export function turnToLevel(from: Point, to: Point, leastPx = 12): number | null {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (Math.hypot(dx, dy) < leastPx) return null;
  const degrees = (Math.atan2(dy, dx) * 180) / Math.PI;
  const fromLevel = degrees - Math.round(degrees / 90) * 90;
  // Without the minus of zero.
  return Math.round(-fromLevel * 10) || 0;
}
