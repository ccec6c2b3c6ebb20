import { useLayoutEffect, useRef } from 'react';
import type { OverWords } from '#core/media/over-words.ts';
import { drawOver } from './draw-over.ts';

interface OverHereProps {
  readonly words: OverWords;
  /** Where the picture lies, in px. */
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Words over a picture on the screen. */
export function OverHere({ words, left, top, width, height }: OverHereProps) {
  const place = useRef<HTMLSpanElement>(null);
  useLayoutEffect(() => {
    place.current?.replaceChildren(drawOver(words, { width, height }));
  }, [words, width, height]);
  return (
    <span className="pointer-events-none absolute block" ref={place} style={{ left, top, width, height }} />
  );
}
