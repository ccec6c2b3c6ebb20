/** A row of pictures of one height. Indexes are into the list that was laid out; `to` is not included. */
export interface Row {
  readonly from: number;
  readonly to: number;
  /** Height in px of the pictures in the row. */
  readonly height: number;
}

/** The last row is made flush too when that stretches it by no more than this. */
const MOST_STRETCH = 1.35;

/**
 * Lays pictures of the given shapes (width by height) out in rows of equal height, each as wide as `width` px with
 * `gap` px between pictures, as near the wished height as whole pictures allow. A last row that would have to be
 * stretched much keeps the wished height.
 */
export function trueShapeRows(
  aspects: readonly number[],
  width: number,
  wishedHeight: number,
  gap: number,
): readonly Row[] {
  const flushHeight = (sum: number, count: number) => Math.max(1, (width - gap * (count - 1)) / sum);
  const rows: Row[] = [];
  let from = 0;
  let sum = 0;
  aspects.forEach((aspect, at) => {
    const before = at > from ? flushHeight(sum, at - from) : Number.POSITIVE_INFINITY;
    const after = flushHeight(sum + aspect, at - from + 1);
    if (after < wishedHeight && before - wishedHeight < wishedHeight - after) {
      rows.push({ from, to: at, height: before });
      from = at;
      sum = 0;
    }
    sum += aspect;
    if (flushHeight(sum, at - from + 1) > wishedHeight) return;
    rows.push({ from, to: at + 1, height: flushHeight(sum, at - from + 1) });
    from = at + 1;
    sum = 0;
  });
  if (from < aspects.length) {
    const flush = flushHeight(sum, aspects.length - from);
    rows.push({
      from,
      to: aspects.length,
      height: flush <= wishedHeight * MOST_STRETCH ? flush : wishedHeight,
    });
  }
  return rows;
}
