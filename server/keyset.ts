import { type AnyColumn, and, asc, desc, eq, gt, lt, or, type SQL } from 'drizzle-orm';
import { readCursor, writeCursor } from './cursor.ts';

/**
 * An order in which a list is told page by page: by one column, and among those that are equal there by ID. A column that no two
 * rows share (`isUnique`) stands alone, so that an index in its order is enough. `at` is what a cursor carries of a row, `read` what
 * is compared with the column again.
 */
export interface ListOrder<Column extends string, Row> {
  readonly by: Column;
  readonly isDown?: boolean;
  readonly isUnique?: boolean;
  readonly at: (row: Row) => string | number;
  readonly read: (value: string | number) => string | number | Date;
}

type Columns<Column extends string> = Readonly<Record<Column | 'id', AnyColumn>>;

/** The order itself, over a table or what was asked of one. */
export function inOrder<Column extends string>(
  { by, isDown = false, isUnique = false }: Pick<ListOrder<Column, never>, 'by' | 'isDown' | 'isUnique'>,
  columns: Columns<Column>,
): readonly SQL[] {
  const way = isDown ? desc : asc;
  return isUnique ? [way(columns[by])] : [way(columns[by]), way(columns.id)];
}

export const cursorAfter = <Column extends string, Row extends { readonly id: string }>(
  { at }: Pick<ListOrder<Column, Row>, 'at'>,
  row: Row,
): string => writeCursor(at(row), row.id);

/** What comes after a cursor in the order. Throws an HttpProblem for what is no cursor of ours. */
export function afterCursor<Column extends string, Row>(
  { by, isDown = false, isUnique = false, read }: ListOrder<Column, Row>,
  columns: Columns<Column>,
  cursor: string,
): SQL | undefined {
  const [told, id] = readCursor(cursor);
  const value = read(told);
  const beyond = isDown ? lt : gt;
  const column = columns[by];
  return isUnique
    ? beyond(column, value)
    : or(beyond(column, value), and(eq(column, value), beyond(columns.id, id)));
}
