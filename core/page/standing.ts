import type { Placement } from './blocks/placement/schema.ts';
import type { Room } from './room.ts';

/** A placement and the room that it stands in: all that decides how wide it is. */
export interface Standing {
  readonly placement: Placement;
  readonly room: Room;
}

const BARE = { top: 0, right: 0, bottom: 0, left: 0 };

/** Made once for each placement, since much that is settled of one is kept by it. */
const filling = new WeakMap<Placement, Placement>();

/**
 * A placement as it stands in a room. One that fills the place it has in a row keeps its side, width and margins for when it
 * is taken out again, and stands without them.
 */
export function standsIn(placement: Placement, { sort }: Pick<Room, 'sort'>): Placement {
  if (sort !== 'filled') return placement;
  const known = filling.get(placement);
  if (known) return known;
  const filled: Placement = {
    ...placement,
    position: 'column',
    width: null,
    margins: BARE,
    stackBelow: null,
  };
  filling.set(placement, filled);
  return filled;
}
