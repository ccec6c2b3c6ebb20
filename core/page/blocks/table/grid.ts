import { type Cell, colspanOf, rowspanOf, TABLE_MOST, type TableRow } from './schema.ts';

/** A cell with the column in which it begins. */
export interface PlacedCell {
  readonly cell: Cell;
  readonly column: number;
}

/**
 * Where each cell of a table stands (WHATWG HTML, 4.9.12.1, "forming a table"): row by row, past what hangs down from the
 * rows above. Linear in the places of the grid.
 */
export function placedCells(rows: readonly TableRow[]): readonly (readonly PlacedCell[])[] {
  /** For each column, how many rows still hang in it from above. */
  const hanging: number[] = [];
  return rows.map(({ content }) => {
    let column = 0;
    const placed = content.map((cell) => {
      while ((hanging[column] ?? 0) > 0) column += 1;
      const at = column;
      for (let width = colspanOf(cell); width > 0; width -= 1, column += 1)
        hanging[column] = -rowspanOf(cell);
      return { cell, column: at };
    });
    for (let at = 0; at < hanging.length; at += 1) {
      const left = hanging[at] ?? 0;
      hanging[at] = left < 0 ? -left - 1 : Math.max(0, left - 1);
    }
    return placed;
  });
}

const EMPTY: Cell = { type: 'tableCell', content: [{ type: 'paragraph' }] };

/**
 * The same rows as a whole grid, which every row fills: spans end with the table, what overlaps is moved on, and places that
 * no cell has get an empty one. Null where the grid would be larger than tables may be. A cell counts once for each of its
 * places, so that spans that say more than there is cost nothing.
 */
export function wholeGrid(rows: readonly TableRow[]): readonly TableRow[] | null {
  if (rows.length === 0 || rows.length > TABLE_MOST.rows) return null;
  const taken = rows.map((): boolean[] => []);
  const placed = rows.map((): { cell: Cell; column: number }[] => []);
  let columns = 0;
  let cells = 0;
  for (const [row, { content }] of rows.entries()) {
    let column = 0;
    for (const cell of content) {
      while (taken[row]?.[column]) column += 1;
      const height = Math.min(rowspanOf(cell), rows.length - row);
      let width = 1;
      const isFree = (at: number) => !taken[row]?.[at];
      while (width < colspanOf(cell) && isFree(column + width)) width += 1;
      cells += width * height;
      if (column + width > TABLE_MOST.columns || cells > TABLE_MOST.cells) return null;
      for (let down = 0; down < height; down += 1)
        for (let across = 0; across < width; across += 1) {
          const line = taken[row + down];
          if (line) line[column + across] = true;
        }
      placed[row]?.push({ cell: spanned(cell, width, height), column });
      column += width;
      columns = Math.max(columns, column);
    }
  }
  if (columns === 0 || columns * rows.length > TABLE_MOST.cells) return null;
  return placed.map((line, row) => ({ type: 'tableRow', content: filled(line, taken[row] ?? [], columns) }));
}

function filled(
  line: readonly { readonly cell: Cell; readonly column: number }[],
  taken: readonly boolean[],
  columns: number,
): Cell[] {
  const begins = new Map(line.map(({ cell, column }) => [column, cell]));
  return Array.from(
    { length: columns },
    (_, column) => begins.get(column) ?? (taken[column] ? [] : EMPTY),
  ).flat();
}

function spanned({ attrs: _attrs, ...cell }: Cell, colspan: number, rowspan: number): Cell {
  const attrs = {
    ...(colspan > 1 ? { colspan } : {}),
    ...(rowspan > 1 ? { rowspan } : {}),
  };
  return Object.keys(attrs).length > 0 ? { ...cell, attrs } : cell;
}
