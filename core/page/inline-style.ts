import type { Placement } from './blocks/placement/schema.ts';
import { isBeside } from './layout.ts';
import { DEFAULT_SHARE, marginsOf } from './target.ts';

/**
 * The layout of a placement as styles of its own, for pages that do not take the style sheet: side, width and margins, as
 * far as a style attribute can say them. Pictures that break out of the column fill it, and those beside the text stand
 * there at any width.
 */
export function inlineFigureStyle(placement: Placement): string {
  const { top, right, bottom, left } = marginsOf(placement);
  const own = placement.width
    ? `${placement.width.value}${placement.width.unit}`
    : `${DEFAULT_SHARE[placement.position] * 100}%`;
  if (isBeside(placement)) {
    const side = placement.position === 'beside-left' ? 'left' : 'right';
    return `float:${side};clear:${side};width:${own};max-width:100%;margin:${top}px ${right}px ${bottom}px ${left}px`;
  }
  if (placement.position === 'centred')
    return `clear:both;width:${own};max-width:100%;margin:${top}px auto ${bottom}px`;
  return `clear:both;margin:${top}px ${right}px ${bottom}px ${left}px`;
}

export const INLINE_PICTURE = 'display:block;width:100%;height:auto';
export const INLINE_CAPTION = 'font-size:14px;line-height:1.4;padding-top:6px';
export const INLINE_WORDS = 'margin:8px 0 0;font-weight:600';
