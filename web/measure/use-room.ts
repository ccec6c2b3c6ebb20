import { type RefObject, useLayoutEffect, useState } from 'react';

/** What stands free at both edges of a pane with frames, in px. */
const PADDING_PX = 36;

/**
 * How much room in px a pane has for frames, as it is drawn wider and narrower; `usual` before it is known. `which` changes where
 * another element holds the frames.
 */
export function useRoom(pane: RefObject<HTMLElement | null>, usual: number, which: unknown = null): number {
  const [room, setRoom] = useState(usual);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another element is looked at when that changes.
  useLayoutEffect(() => {
    const element = pane.current;
    if (!element) return;
    const look = () => setRoom(element.clientWidth - PADDING_PX);
    look();
    const observer = new ResizeObserver(look);
    observer.observe(element);
    return () => observer.disconnect();
  }, [pane, which]);
  return room;
}
