/** Neighbouring widths closer than this share are merged into the larger. */
const MERGE_SHARE = 0.15;

/** Screens that show more device pixels per px than this are served as if they had this many. */
const DENSITIES = [1, 2] as const;

/**
 * The widths in px at which a cut is made: each shown width at 1x and 2x, merged where neighbours are within
 * 15 %, never over the cut's own width (`cutWidth`), ascending and without repeats. A cut narrower than all
 * shown widths is made once, at its own width.
 */
export function widthLadder(shownWidths: readonly number[], cutWidth: number): readonly number[] {
  const wished = shownWidths.flatMap((shown) => DENSITIES.map((density) => Math.ceil(shown * density)));
  const possible = [...new Set(wished.map((width) => Math.max(1, Math.min(width, cutWidth))))].sort(
    (a, b) => b - a,
  );
  const kept: number[] = [];
  for (const width of possible) {
    const above = kept.at(-1);
    if (above === undefined || width < above * (1 - MERGE_SHARE)) kept.push(width);
  }
  return kept.reverse();
}

/**
 * The smallest width of the ladder that serves `shownWidth` at `density` without enlarging, or the largest there
 * is. The choice a browser makes from `srcset` and `sizes` (HTML, "select an image source").
 */
export function chosenWidth(ladder: readonly number[], shownWidth: number, density: number): number {
  const needed = shownWidth * density;
  return ladder.find((width) => width >= needed) ?? ladder.at(-1) ?? 0;
}
