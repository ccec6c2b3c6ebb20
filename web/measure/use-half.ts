import { type RefObject, useLayoutEffect, useState } from 'react';

const GAP_PX = 22;
const PADDING_PX = 36;
/** Narrower, a page is only looked at one state after the other. */
export const LEAST_PX = 280;

/** Half of the room, so that both states stand side by side; all of it where that is too narrow. */
export function useHalf(pane: RefObject<HTMLElement | null>): number {
  const [room, setRoom] = useState(840);
  useLayoutEffect(() => {
    const element = pane.current;
    if (!element) return;
    const look = () => setRoom(element.clientWidth - PADDING_PX);
    look();
    const observer = new ResizeObserver(look);
    observer.observe(element);
    return () => observer.disconnect();
  }, [pane]);
  const half = Math.floor((room - GAP_PX) / 2);
  return half < LEAST_PX ? Math.max(LEAST_PX, room) : half;
}
