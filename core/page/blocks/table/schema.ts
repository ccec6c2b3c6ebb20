import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { LineSchema } from '../list/schema.ts';

/** Most rows and columns of a table, and most cells that its grid has: what is larger is a file to be taken away. */
export const TABLE_MOST = { rows: 1000, columns: 100, cells: 50_000 } as const;

const span = (most: number) =>
  v.exactOptional(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(most)));
const spans = v.exactOptional(
  v.strictObject({ colspan: span(TABLE_MOST.columns), rowspan: span(TABLE_MOST.rows) }),
);

/** A cell with its lines; a `tableHeader` says what the others of its row or column are about. */
const CellSchema = v.strictObject({
  type: v.picklist(['tableCell', 'tableHeader']),
  attrs: spans,
  content: v.pipe(v.array(LineSchema), v.minLength(1)),
});
export type Cell = v.InferOutput<typeof CellSchema>;

const TableRowSchema = v.strictObject({
  type: v.literal('tableRow'),
  content: v.pipe(v.array(CellSchema), v.maxLength(TABLE_MOST.columns)),
});
export type TableRow = v.InferOutput<typeof TableRowSchema>;

/** What stands over a table; empty where nothing does. */
export const TableCaptionSchema = v.pipe(v.string(), v.trim(), v.maxLength(300));

/** A table (WHATWG HTML, 4.9): rows of cells, part of the table as entries are of a list. */
export const TableSchema = v.strictObject({
  type: v.literal('table'),
  attrs: v.strictObject({ id: IdSchema, caption: TableCaptionSchema }),
  content: v.pipe(v.array(TableRowSchema), v.minLength(1), v.maxLength(TABLE_MOST.rows)),
});
export type Table = v.InferOutput<typeof TableSchema>;

export const isHeader = ({ type }: Cell): boolean => type === 'tableHeader';

/** The table with its first row as headings of its columns. */
export function withHeadRow(table: Table): Table {
  const [first, ...others] = table.content;
  if (!first) return table;
  const head = first.content.map((cell): Cell => ({ ...cell, type: 'tableHeader' }));
  return { ...table, content: [{ ...first, content: head }, ...others] };
}

export const colspanOf = ({ attrs }: Cell): number => attrs?.colspan ?? 1;
export const rowspanOf = ({ attrs }: Cell): number => attrs?.rowspan ?? 1;
