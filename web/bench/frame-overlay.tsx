import type { KeyboardEvent, PointerEvent } from 'react';
import type { CropRect, Point, Ratio } from '#core/media/crop.ts';
import type { Size } from '#core/media/dimensions.ts';
import { cornerMoved, movedFrame, resizedFrame, scaledFrame } from '#core/media/frame.ts';
import { Dimension } from '../measure/dimension.tsx';

interface FrameOverlayProps {
  readonly frame: CropRect;
  /** Null for a frame of any shape. */
  readonly ratio: Ratio | null;
  /** Gives the picture its own shape back, or lets the cut follow the focal point again. */
  readonly onClear: () => void;
  /** Size in px of the picture as a whole, and the width at which it is shown. */
  readonly whole: Size;
  readonly width: number;
  /** While it is moved, and when it is let go. */
  readonly onFrame: (frame: CropRect, isDone: boolean) => void;
}

const CORNERS = [
  { name: 'top left', x: 0, y: 0 },
  { name: 'top right', x: 1, y: 0 },
  { name: 'bottom left', x: 0, y: 1 },
  { name: 'bottom right', x: 1, y: 1 },
] as const;

const STEP = 0.005;
const LARGE_STEP = 0.05;
const MIDDLE: Point = { x: 0.5, y: 0.5 };

/** The frame of a cut on the picture: dragged, drawn larger by its corners, or stepped by keys; measured on the spot. */
export function FrameOverlay({ frame, ratio, whole, width, onFrame, onClear }: FrameOverlayProps) {
  const height = (width * whole.height) / whole.width;
  const style = {
    left: frame.left * width,
    top: frame.top * height,
    width: frame.width * width,
    height: frame.height * height,
  };
  const drag = (event: PointerEvent<HTMLElement>, change: (dx: number, dy: number) => CropRect) => {
    event.preventDefault();
    event.stopPropagation();
    const element = event.currentTarget;
    element.setPointerCapture(event.pointerId);
    const [startX, startY] = [event.clientX, event.clientY];
    let latest = frame;
    const move = (moved: globalThis.PointerEvent) => {
      latest = change((moved.clientX - startX) / width, (moved.clientY - startY) / height);
      onFrame(latest, false);
    };
    const end = () => {
      element.removeEventListener('pointermove', move);
      if (latest !== frame) onFrame(latest, true);
    };
    element.addEventListener('pointermove', move);
    element.addEventListener('pointerup', end, { once: true });
    element.addEventListener('pointercancel', end, { once: true });
  };
  const press = (event: KeyboardEvent) => {
    if (event.key === 'Backspace' || event.key === 'Delete') {
      event.preventDefault();
      onClear();
      return;
    }
    const next = stepped(event, frame, ratio, whole);
    if (!next) return;
    event.preventDefault();
    onFrame(next, true);
  };
  const pixels = Math.round(frame.width * whole.width);
  return (
    <>
      <div
        data-shade
        className="pointer-events-none absolute inset-0 bg-stage-shade"
        style={{ clipPath: outside(style, width, height) }}
      />
      <Dimension
        axis="x"
        tone="stage"
        words={`${pixels} px of ${whole.width}`}
        style={{ left: style.left, top: Math.max(2, style.top - 20), width: style.width }}
      />
      <Dimension
        axis="y"
        tone="stage"
        words={String(Math.round(frame.height * whole.height))}
        style={{
          left: Math.min(width - 16, style.left + style.width + 6),
          top: style.top,
          height: style.height,
        }}
      />
      <button
        type="button"
        data-handle="frame"
        className="absolute cursor-move touch-none shadow-[0_0_0_2px_#fff,0_0_0_3px_rgb(0_0_0_/_0.5)] focus-visible:outline-3 focus-visible:outline-offset-3 focus-visible:outline-paper-ink"
        aria-label={`Frame: ${pixels} px wide, ${Math.round(frame.left * whole.width)} from the left, ${Math.round(frame.top * whole.height)} from the top. Arrow keys move it, plus and minus size it, Backspace clears it.`}
        style={style}
        onPointerDown={(event) => drag(event, (dx, dy) => movedFrame(frame, dx, dy))}
        onKeyDown={press}
      >
        {CORNERS.map(({ name, x, y }) => (
          <span
            key={name}
            data-corner={name}
            className="absolute size-4 -translate-1/2 touch-none border border-paper-ink bg-white"
            style={{ left: `${x * 100}%`, top: `${y * 100}%` }}
            onPointerDown={(event) =>
              drag(event, (dx, dy) =>
                ratio
                  ? resizedFrame(frame, whole, ratio, frame.width + dx * (x === 0 ? -1 : 1), {
                      x: 1 - x,
                      y: 1 - y,
                    })
                  : cornerMoved(frame, { x, y }, dx, dy),
              )
            }
          />
        ))}
      </button>
    </>
  );
}

function stepped(event: KeyboardEvent, frame: CropRect, ratio: Ratio | null, whole: Size): CropRect | null {
  const by = event.shiftKey ? LARGE_STEP : STEP;
  const sized = (times: number) =>
    ratio ? resizedFrame(frame, whole, ratio, frame.width * times, MIDDLE) : scaledFrame(frame, times);
  switch (event.key) {
    case 'ArrowLeft':
      return movedFrame(frame, -by, 0);
    case 'ArrowRight':
      return movedFrame(frame, by, 0);
    case 'ArrowUp':
      return movedFrame(frame, 0, -by);
    case 'ArrowDown':
      return movedFrame(frame, 0, by);
    case '+':
    case '=':
      return sized(1 + LARGE_STEP);
    case '-':
      return sized(1 - LARGE_STEP);
    default:
      return null;
  }
}

interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Everything but the frame, as one path that runs round it. */
function outside({ left, top, width, height }: Box, wide: number, high: number): string {
  const [right, bottom] = [left + width, top + height];
  return `polygon(evenodd, 0 0, ${wide}px 0, ${wide}px ${high}px, 0 ${high}px, 0 0, ${left}px ${top}px, ${right}px ${top}px, ${right}px ${bottom}px, ${left}px ${bottom}px, ${left}px ${top}px)`;
}
