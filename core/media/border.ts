import type { CropRect } from './crop.ts';
import type { Size } from './dimensions.ts';

/** Pixels row by row, three bytes each: red, green, blue. */
export interface RgbPicture extends Size {
  readonly pixels: Uint8Array;
}

type Colour = readonly [number, number, number];

interface Line {
  readonly colour: Colour;
  /** The mean distance of its pixels from its colour, in steps of 0 to 255. */
  readonly spread: number;
}

/** A line of a border is nearly of one colour; grain of a scan stays under this. */
const EVEN_SPREAD = 9;
/** Lines of one border are this near in colour. */
const SAME_COLOUR = 14;
/** A pixel this far from the border's colour belongs to the picture. */
const OTHER_COLOUR = 20;
/** Right inside a border this share of the pixels belongs to the picture: a chart on white paper has few. */
const FULL_EDGE = 0.55;
/** Borders narrower or wider than these shares of the edge are not taken for borders. */
const LEAST_SHARE = 0.008;
const MOST_SHARE = 0.22;

/**
 * The part of a picture inside a border or frame that was baked into it, in fractions, or null. A border is of one
 * colour on all four sides (or above and below only, when black or white), and the picture begins at once behind it.
 */
export function insideBorder(picture: RgbPicture): CropRect | null {
  const { width, height } = picture;
  if (width < 24 || height < 24) return null;
  const row = (y: number) => lineOf(picture, y * width, 1, width);
  const column = (x: number) => lineOf(picture, x, width, height);
  const top = depthOf(row, height, (y) => y);
  const bottom = depthOf(row, height, (y) => height - 1 - y);
  const left = depthOf(column, width, (x) => x);
  const right = depthOf(column, width, (x) => width - 1 - x);
  const across = top !== null && bottom !== null && areAlike([top.colour, bottom.colour]);
  if (!across) return null;
  const isFramed = left !== null && right !== null && areAlike([top.colour, left.colour, right.colour]);
  if (!isFramed && !isBlackOrWhite(top.colour)) return null;
  const edges = {
    top: top.depth,
    bottom: height - bottom.depth,
    left: isFramed ? left.depth : 0,
    right: isFramed ? width - right.depth : width,
  };
  if (!beginsAtOnce(picture, top.colour, edges, isFramed)) return null;
  return {
    left: edges.left / width,
    top: edges.top / height,
    width: (edges.right - edges.left) / width,
    height: (edges.bottom - edges.top) / height,
  };
}

function lineOf({ pixels }: RgbPicture, start: number, step: number, length: number): Line {
  const sums = [0, 0, 0];
  for (let at = 0; at < length; at += 1) {
    for (let c = 0; c < 3; c += 1) sums[c] = (sums[c] ?? 0) + (pixels[(start + at * step) * 3 + c] ?? 0);
  }
  const colour: Colour = [(sums[0] ?? 0) / length, (sums[1] ?? 0) / length, (sums[2] ?? 0) / length];
  let spread = 0;
  for (let at = 0; at < length; at += 1) spread += distanceAt(pixels, start + at * step, colour);
  return { colour, spread: spread / length };
}

function distanceAt(pixels: Uint8Array, at: number, colour: Colour): number {
  return colour.reduce((sum, value, c) => sum + Math.abs((pixels[at * 3 + c] ?? 0) - value), 0) / 3;
}

function apart(one: Colour, other: Colour): number {
  return one.reduce((sum, value, c) => sum + Math.abs(value - (other[c] ?? 0)), 0) / 3;
}

function areAlike(colours: readonly Colour[]): boolean {
  const [first] = colours;
  return first !== undefined && colours.every((colour) => apart(first, colour) <= SAME_COLOUR);
}

function isBlackOrWhite(colour: Colour): boolean {
  return colour.every((value) => value < 16) || colour.every((value) => value > 239);
}

/** How many lines from one side are of the side's own colour; null where that is no border. */
function depthOf(
  line: (at: number) => Line,
  length: number,
  fromSide: (at: number) => number,
): { readonly depth: number; readonly colour: Colour } | null {
  const most = Math.floor(length * MOST_SHARE);
  const { colour } = line(fromSide(0));
  let depth = 0;
  while (depth <= most) {
    const next = line(fromSide(depth));
    if (next.spread > EVEN_SPREAD || apart(next.colour, colour) > SAME_COLOUR) break;
    depth += 1;
  }
  if (depth > most || depth < Math.max(2, length * LEAST_SHARE)) return null;
  return { depth, colour };
}

interface Edges {
  readonly top: number;
  readonly bottom: number;
  readonly left: number;
  readonly right: number;
}

/** Whether the picture fills its edges: a line or two inside the border most pixels are of another colour. */
function beginsAtOnce(picture: RgbPicture, colour: Colour, edges: Edges, isFramed: boolean): boolean {
  const { width, pixels } = picture;
  const inner = 2;
  const share = (start: number, step: number, length: number) => {
    let others = 0;
    for (let at = 0; at < length; at += 1)
      if (distanceAt(pixels, start + at * step, colour) > OTHER_COLOUR) others += 1;
    return length > 0 ? others / length : 0;
  };
  const [across, down] = [edges.right - edges.left, edges.bottom - edges.top];
  const shares = [
    share((edges.top + inner) * width + edges.left, 1, across),
    share((edges.bottom - 1 - inner) * width + edges.left, 1, across),
    ...(isFramed
      ? [
          share(edges.top * width + edges.left + inner, width, down),
          share(edges.top * width + edges.right - 1 - inner, width, down),
        ]
      : []),
  ];
  return shares.every((one) => one >= FULL_EDGE);
}
