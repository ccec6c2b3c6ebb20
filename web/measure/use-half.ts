import type { RefObject } from 'react';
import { useRoom } from './use-room.ts';

const GAP_PX = 22;
/** Narrower, a page is only looked at one state after the other. */
export const LEAST_PX = 280;

/** Half of the room, so that both states stand side by side; all of it where that is too narrow. */
export function useHalf(pane: RefObject<HTMLElement | null>): number {
  const room = useRoom(pane, 840);
  const half = Math.floor((room - GAP_PX) / 2);
  return half < LEAST_PX ? Math.max(LEAST_PX, room) : half;
}
