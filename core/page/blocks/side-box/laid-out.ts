import { isBeside } from '../../layout.ts';
import { marginsOf } from '../../target.ts';
import type { SideBox } from './schema.ts';

/** Space in px between the edge of a box and what is in it, at each side. */
export const PADDING_PX = 16;

type Laid = Pick<SideBox['attrs'], 'position' | 'share'>;

/** A box as a piece in its place is laid out: beside the text, or under it where a window is narrow. */
export const laidOut = ({ position, share }: Laid) => ({
  position,
  width: { unit: '%', value: share } as const,
  margins: null,
  stackBelow: null,
});

/** Its width and margins as custom properties, for the style of its kind. */
export function boxStyle(attrs: Laid): string {
  const { top, right, bottom, left } = marginsOf(laidOut(attrs));
  return `--w:${attrs.share}%;--t:${top}px;--r:${right}px;--b:${bottom}px;--l:${left}px`;
}

/** The same as styles of its own, for pages that do not take the style sheet. */
export function inlineBoxStyle(attrs: Laid): string {
  const { top, right, bottom, left } = marginsOf(laidOut(attrs));
  const box = `padding:${PADDING_PX}px;border:1px solid;box-sizing:border-box`;
  if (!isBeside(attrs)) return `clear:both;margin:${top}px 0 ${bottom}px;${box}`;
  const side = attrs.position === 'beside-left' ? 'left' : 'right';
  return `float:${side};clear:${side};width:${attrs.share}%;margin:${top}px ${right}px ${bottom}px ${left}px;${box}`;
}
