import type { KeyboardEvent, PointerEvent } from 'react';
import type { Point } from '#core/media/crop.ts';

interface FocalMarkProps {
  /** In fractions of the picture as it is seen. */
  readonly point: Point;
  readonly width: number;
  readonly height: number;
  readonly onPoint: (point: Point, isDone: boolean) => void;
}

const STEP = 0.01;

/** The focal point: what no cut may lose. Dragged, or stepped by arrow keys. */
export function FocalMark({ point, width, height, onPoint }: FocalMarkProps) {
  const begin = (event: PointerEvent<HTMLButtonElement>) => {
    event.preventDefault();
    event.stopPropagation();
    const mark = event.currentTarget;
    const stage = mark.parentElement?.getBoundingClientRect();
    if (!stage) return;
    mark.setPointerCapture(event.pointerId);
    let latest = point;
    const move = (moved: globalThis.PointerEvent) => {
      latest = inside({ x: (moved.clientX - stage.left) / width, y: (moved.clientY - stage.top) / height });
      onPoint(latest, false);
    };
    const end = () => {
      mark.removeEventListener('pointermove', move);
      if (latest !== point) onPoint(latest, true);
    };
    mark.addEventListener('pointermove', move);
    mark.addEventListener('pointerup', end, { once: true });
    mark.addEventListener('pointercancel', end, { once: true });
  };
  const press = (event: KeyboardEvent) => {
    const by = STEPS[event.key];
    if (!by) return;
    event.preventDefault();
    onPoint(inside({ x: point.x + by.x * STEP, y: point.y + by.y * STEP }), true);
  };
  return (
    <button
      type="button"
      data-handle="focal"
      className="absolute size-6.5 -translate-1/2 cursor-grab touch-none rounded-full border-2 border-white bg-[radial-gradient(circle,#fff_0_3px,rgb(23_33_38_/_0.35)_4px)] ring-1 ring-paper-ink"
      aria-label={`Focal point, ${Math.round(point.x * 100)}% from the left, ${Math.round(point.y * 100)}% from the top`}
      style={{ left: point.x * width, top: point.y * height }}
      onPointerDown={begin}
      onKeyDown={press}
    />
  );
}

const STEPS: Readonly<Record<string, Point>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

function inside({ x, y }: Point): Point {
  const clamp = (value: number) => Math.min(1, Math.max(0, value));
  return { x: clamp(x), y: clamp(y) };
}
