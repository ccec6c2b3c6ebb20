import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { FlowBlockSchema } from '../flow-block.ts';
import { GapSchema } from '../gap.ts';

/** A column's share of the width, beside those of the others: 60 and 40, or 1 and 2. */
export const COLUMN_SHARE = { least: 1, most: 100 } as const;

/** One column. It stands nowhere else. */
export const ColumnSchema = v.strictObject({
  type: v.literal('column'),
  attrs: v.strictObject({
    id: IdSchema,
    share: v.pipe(v.number(), v.integer(), v.minValue(COLUMN_SHARE.least), v.maxValue(COLUMN_SHARE.most)),
    /** Whether it comes first where columns stand one below the other; of several, the first does. */
    leads: v.boolean(),
  }),
  content: v.array(FlowBlockSchema),
});
export type Column = v.InferOutput<typeof ColumnSchema>;

/** How many columns stand beside each other. */
export const COLUMN_COUNTS = [2, 3, 4] as const;

/** Px between columns. */
export const COLUMNS_GAP = 28;

/** What two people make of one row may have more columns than either made. */
const MOST_COLUMNS = 8;

export const ColumnsSchema = v.strictObject({
  type: v.literal('columns'),
  attrs: v.strictObject({ id: IdSchema, gap: GapSchema }),
  content: v.pipe(v.array(ColumnSchema), v.maxLength(MOST_COLUMNS)),
});
export type Columns = v.InferOutput<typeof ColumnsSchema>;

/** Words break into single ones in a column that is narrower. */
const LEAST_COLUMN_PX = 150;

/**
 * The window in px under which columns stand one below the other: where the target stacks what stands beside each other, or
 * where there is no room for so many.
 */
export function columnsStackBelow(
  count: number,
  { stackBelow, gutter }: Readonly<Record<'stackBelow' | 'gutter', number>>,
): number {
  return Math.max(stackBelow, count * LEAST_COLUMN_PX + (count - 1) * COLUMNS_GAP + 2 * gutter);
}

/** The sum of the shares of columns; each has its share of that. */
export function sumOfShares(columns: readonly { readonly attrs: { readonly share: number } }[]): number {
  return columns.reduce((sum, { attrs }) => sum + attrs.share, 0);
}

/** The widths of columns as tracks of a grid (CSS Grid 1), which leave out the gaps just as their rooms do. */
export const tracksOfShares = (shares: readonly number[]): string =>
  shares.map((share) => `minmax(0, ${share}fr)`).join(' ');
