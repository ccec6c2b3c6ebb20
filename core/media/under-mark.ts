import type { Lights } from './over-contrast.ts';

/** A mark across a picture changes fewer of its places than this share leaves out. */
const KEPT_SHARE = 0.6;
/** In levels of 255: from this on, a place differs from the next one in the picture. */
const EDGE = 4;
/** A picture with fewer edges is an even ground, which any mark changes: nothing is known by it. */
const FEW_EDGES = 0.03;
/**
 * Of 18 originals of an agency (painted large, painted small, plain), each is 0.1 to 1.0 from its own comp of the same shape,
 * and 3.0 to 71 from the comps of all others.
 */
const SAME_MOST = 2;

/**
 * Whether a comp is an original with a mark across it: where the original shows something, which an even ground does not, the
 * three in five places that are most alike differ by hardly anything, in levels of 255 on average. Both are read as `lights`
 * of the same grid; anything else is no.
 */
export function isUnderMark(comp: Lights, original: Lights): boolean {
  const places = original.columns * original.rows;
  if (places === 0 || comp.columns !== original.columns || comp.rows !== original.rows) return false;
  const all = Array.from({ length: places }, (_, at) => at);
  const edges = all.filter((at) => isEdge(original, at));
  if (edges.length < places * FEW_EDGES) return false;
  const differences = Float64Array.from(edges, (at) => apart(comp, original, at, at)).sort();
  const kept = differences.subarray(0, Math.ceil(edges.length * KEPT_SHARE));
  return kept.reduce((sum, value) => sum + value, 0) / kept.length <= SAME_MOST;
}

function isEdge(lights: Lights, at: number): boolean {
  const { columns, rows } = lights;
  const isLastInRow = at % columns === columns - 1;
  const isInLastRow = at >= columns * (rows - 1);
  return (
    (!isLastInRow && apart(lights, lights, at, at + 1) > EDGE) ||
    (!isInLastRow && apart(lights, lights, at, at + columns) > EDGE)
  );
}

/** How far the colours of two places lie apart, on average of the channels. */
function apart(one: Lights, other: Lights, here: number, there: number): number {
  const channel = (add: number) =>
    Math.abs((one.rgb[here * 3 + add] ?? 0) - (other.rgb[there * 3 + add] ?? 0));
  return (channel(0) + channel(1) + channel(2)) / 3;
}
