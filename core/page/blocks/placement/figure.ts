import { isBeside, positionIn } from '../../layout.ts';
import { type PictureStyle, styleOn } from '../../picture-style.ts';
import type { Room } from '../../room.ts';
import { DEFAULT_SHARE, type HouseRules, marginsOf } from '../../target.ts';
import type { Placement } from './schema.ts';

/** The classes of a placement's figure, as `style.ts` lays them out, and that of its picture's style on its target. */
export function figureClass(
  placement: Placement,
  room: Pick<Room, 'sort'>,
  { pictureStyles }: Pick<HouseRules, 'pictureStyles'>,
): string {
  const stacks = isBeside(placement) && placement.stackBelow !== null ? ` stack-${placement.stackBelow}` : '';
  return `placed ${positionIn(room, placement)}${stacks}${styleClass(placement, pictureStyles)}`;
}

/** The class of a picture's style behind others; empty for none. */
export function styleClass(placement: Placement, styles: readonly PictureStyle[]): string {
  const style = styleOn(styles, placement);
  return style ? ` ${style.className}` : '';
}

/** Width and margins of a placement as custom properties. */
export function figureStyle(placement: Placement): string {
  const { top, right, bottom, left } = marginsOf(placement);
  const width = placement.width
    ? `${placement.width.value}${placement.width.unit}`
    : `${DEFAULT_SHARE[placement.position] * 100}%`;
  return `--w:${width};--t:${top}px;--r:${right}px;--b:${bottom}px;--l:${left}px`;
}
