import { type PointerEvent, useEffect, useState } from 'react';
import type { Point } from '#core/media/crop.ts';

interface LevelLineProps {
  readonly onLine: (from: Point, to: Point) => void;
  readonly onLeave: () => void;
}

/** A line drawn over the picture along what should be level or upright. */
export function LevelLine({ onLine, onLeave }: LevelLineProps) {
  const [line, setLine] = useState<{ readonly from: Point; readonly to: Point } | null>(null);
  useEffect(() => {
    const leave = (event: KeyboardEvent) => {
      if (event.key === 'Escape') onLeave();
    };
    window.addEventListener('keydown', leave);
    return () => window.removeEventListener('keydown', leave);
  }, [onLeave]);
  const placeOf = (event: PointerEvent<SVGSVGElement>): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const begin = (event: PointerEvent<SVGSVGElement>) => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    setLine({ from: placeOf(event), to: placeOf(event) });
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    if (line) setLine({ ...line, to: placeOf(event) });
  };
  const end = (event: PointerEvent<SVGSVGElement>) => {
    if (line) onLine(line.from, placeOf(event));
    setLine(null);
  };
  return (
    <svg
      data-handle="level"
      className="absolute inset-0 size-full cursor-crosshair touch-none"
      role="img"
      aria-label="Draw along what should be level or upright"
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={end}
      onPointerCancel={() => setLine(null)}
    >
      {line ? (
        <>
          <line
            className="stroke-black stroke-4"
            x1={line.from.x}
            y1={line.from.y}
            x2={line.to.x}
            y2={line.to.y}
          />
          <line
            className="stroke-white stroke-[1.5]"
            x1={line.from.x}
            y1={line.from.y}
            x2={line.to.x}
            y2={line.to.y}
          />
        </>
      ) : null}
    </svg>
  );
}
