import type { CropRect, Ratio } from './crop.ts';
import type { Size } from './dimensions.ts';

/** A frame is never made smaller than this share of what the picture allows. */
const LEAST_SHARE = 0.05;

/** A frame moved by fractions of the picture, stopped at its edges. */
export function movedFrame(frame: CropRect, byX: number, byY: number): CropRect {
  return {
    ...frame,
    left: clamp(frame.left + byX, 0, 1 - frame.width),
    top: clamp(frame.top + byY, 0, 1 - frame.height),
  };
}

/**
 * A frame of a ratio made `width` wide, in fractions of a picture of `size`; its point at `anchor` (fractions of the
 * frame, 0 and 1 at its edges) stays where it is. Never over the picture, never under a twentieth of it.
 */
export function resizedFrame(
  frame: CropRect,
  size: Size,
  ratio: Ratio,
  width: number,
  anchor: { readonly x: number; readonly y: number },
): CropRect {
  const perWidth = (size.width / size.height) * (ratio.down / ratio.across);
  const [fixedX, fixedY] = [frame.left + anchor.x * frame.width, frame.top + anchor.y * frame.height];
  const room = (fixed: number, at: number) =>
    Math.min(
      at > 0 ? fixed / at : Number.POSITIVE_INFINITY,
      at < 1 ? (1 - fixed) / (1 - at) : Number.POSITIVE_INFINITY,
    );
  const most = Math.min(1, 1 / perWidth, room(fixedX, anchor.x), room(fixedY, anchor.y) / perWidth);
  const least = Math.min(most, LEAST_SHARE * Math.min(1, 1 / perWidth));
  const wide = clamp(width, least, most);
  const high = wide * perWidth;
  return {
    left: clamp(fixedX - anchor.x * wide, 0, 1 - wide),
    top: clamp(fixedY - anchor.y * high, 0, Math.max(0, 1 - high)),
    width: wide,
    height: Math.min(1, high),
  };
}

/** A frame of any shape whose corner (0 or 1 on each axis) was moved; the corner across from it stays. */
export function cornerMoved(
  frame: CropRect,
  corner: { readonly x: 0 | 1; readonly y: 0 | 1 },
  byX: number,
  byY: number,
): CropRect {
  const [left, width] = edgeMoved(frame.left, frame.width, corner.x, byX);
  const [top, height] = edgeMoved(frame.top, frame.height, corner.y, byY);
  return { left, top, width, height };
}

function edgeMoved(start: number, length: number, at: 0 | 1, by: number): readonly [number, number] {
  if (at === 1) return [start, clamp(length + by, LEAST_SHARE, 1 - start)];
  const moved = clamp(start + by, 0, start + length - LEAST_SHARE);
  return [moved, start + length - moved];
}

/** A frame made larger or smaller round its middle, as far as the picture lets it; its shape stays. */
export function scaledFrame(frame: CropRect, times: number): CropRect {
  const most = Math.min(1 / frame.width, 1 / frame.height);
  const least = Math.min(1, LEAST_SHARE / Math.min(frame.width, frame.height));
  const scale = clamp(times, least, most);
  const [width, height] = [frame.width * scale, frame.height * scale];
  return {
    left: clamp(frame.left + (frame.width - width) / 2, 0, 1 - width),
    top: clamp(frame.top + (frame.height - height) / 2, 0, 1 - height),
    width,
    height,
  };
}

/**
 * A frame as it fits a picture of `size` now: one that is still of its ratio (within 1 px) stays as it is; another,
 * since the picture was turned or straightened after, keeps its middle and about its area, in the ratio asked for.
 */
export function fittedFrame(frame: CropRect, size: Size, ratio: Ratio): CropRect {
  const [wide, high] = [frame.width * size.width, frame.height * size.height];
  if (Math.abs(wide - (high * ratio.across) / ratio.down) <= 1) return frame;
  const sameArea = Math.sqrt((wide * high * ratio.across) / ratio.down);
  return resizedFrame(frame, size, ratio, sameArea / size.width, { x: 0.5, y: 0.5 });
}

/** A frame on a picture that is turned by a quarter clockwise. */
export function frameTurnedRight({ left, top, width, height }: CropRect): CropRect {
  return { left: 1 - top - height, top: left, width: height, height: width };
}

/** A frame on a picture that is mirrored left to right. */
export function frameMirrored(frame: CropRect): CropRect {
  return { ...frame, left: 1 - frame.left - frame.width };
}

function clamp(value: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, value));
}
