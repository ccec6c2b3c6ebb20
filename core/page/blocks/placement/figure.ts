import { isBeside, positionIn } from '../../layout.ts';
import type { Room } from '../../room.ts';
import { DEFAULT_SHARE, marginsOf } from '../../target.ts';
import type { Placement } from './schema.ts';

/** The classes of a placement's figure, as `style.ts` lays them out. */
export function figureClass(placement: Placement, room: Pick<Room, 'sort'>): string {
  const stacks = isBeside(placement) && placement.stackBelow !== null ? ` stack-${placement.stackBelow}` : '';
  return `placed ${positionIn(room, placement)}${stacks}`;
}

/** Width and margins of a placement as custom properties. */
export function figureStyle(placement: Placement): string {
  const { top, right, bottom, left } = marginsOf(placement);
  const width = placement.width
    ? `${placement.width.value}${placement.width.unit}`
    : `${DEFAULT_SHARE[placement.position] * 100}%`;
  return `--w:${width};--t:${top}px;--r:${right}px;--b:${bottom}px;--l:${left}px`;
}
