import type { Placement } from './blocks/placement/schema.ts';
import type { Room } from './room.ts';

/** A placement and the room that it stands in: all that decides how wide it is. */
export interface Standing {
  readonly placement: Placement;
  readonly room: Room;
}
