import { type RefObject, useLayoutEffect, useState } from 'react';

const UNKNOWN_PX = 720;

/** The width in px that an element has on the inside, as it changes. */
export function useWidth(element: RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(UNKNOWN_PX);
  useLayoutEffect(() => {
    const box = element.current;
    if (!box) return;
    const look = () => setWidth(box.clientWidth);
    look();
    const observer = new ResizeObserver(look);
    observer.observe(box);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
