import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placedCells, wholeGrid } from './grid.ts';
import { type Cell, colspanOf, rowspanOf, TABLE_MOST, type TableRow } from './schema.ts';

const cell = (colspan = 1, rowspan = 1): Cell => ({
  type: 'tableCell',
  attrs: { colspan, rowspan },
  content: [{ type: 'paragraph' }],
});
const row = (...content: Cell[]): TableRow => ({ type: 'tableRow', content });

/** How often each place of a grid is taken, row by row. */
function takenIn(rows: readonly TableRow[]): number[][] {
  const taken = rows.map((): number[] => []);
  for (const [at, cells] of placedCells(rows).entries())
    for (const { cell: one, column } of cells)
      for (let down = 0; down < rowspanOf(one); down += 1)
        for (let across = 0; across < colspanOf(one); across += 1) {
          const line = taken[at + down];
          if (line) line[column + across] = (line[column + across] ?? 0) + 1;
        }
  return taken.map((line) => [...line]);
}

const anyRows = fc.array(
  fc
    .array(fc.tuple(fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 5 })), { maxLength: 6 })
    .map((cells) => row(...cells.map(([colspan, rowspan]) => cell(colspan, rowspan)))),
  { minLength: 1, maxLength: 7 },
);

describe('the grid of a table', () => {
  it('has each place taken once, in every row alike, whatever the cells said', () => {
    fc.assert(
      fc.property(anyRows, (rows) => {
        const grid = wholeGrid(rows);
        if (rows.every(({ content }) => content.length === 0)) {
          expect(grid).toBeNull();
          return;
        }
        const taken = takenIn(grid ?? []);
        const [first] = taken;
        expect(taken).toHaveLength(rows.length);
        for (const line of taken) {
          expect(line).toHaveLength(first?.length ?? -1);
          expect(line.every((times) => times === 1)).toBe(true);
        }
        expect(wholeGrid(grid ?? [])).toEqual(grid);
      }),
    );
  });

  it('keeps each cell that was said, and adds empty ones alone', () => {
    fc.assert(
      fc.property(anyRows, (rows) => {
        const grid = wholeGrid(rows) ?? [];
        for (const [at, { content }] of rows.entries())
          expect(grid[at]?.content.length ?? 0).toBeGreaterThanOrEqual(content.length);
      }),
    );
  });

  it.each([
    ['no row', []],
    ['rows without a cell', [row(), row()]],
    ['more rows than tables have', Array.from({ length: TABLE_MOST.rows + 1 }, () => row(cell()))],
    ['more columns', [row(...Array.from({ length: TABLE_MOST.columns + 1 }, () => cell()))]],
    [
      'more places than there may be',
      Array.from({ length: 600 }, () => row(...Array.from({ length: 100 }, () => cell()))),
    ],
  ])('is none for %s', (_what, rows) => {
    expect(wholeGrid(rows)).toBeNull();
  });

  it('holds a table of 500 rows with 50 cells each', () => {
    const rows = Array.from({ length: 500 }, () => row(...Array.from({ length: 50 }, () => cell())));
    expect(wholeGrid(rows)).toHaveLength(500);
  });

  it('costs no more for spans that say a lot', () => {
    const rows = Array.from({ length: 1000 }, () =>
      row(...Array.from({ length: 100 }, () => cell(100, 1000))),
    );
    expect(wholeGrid(rows)).toBeNull();
  });
});
