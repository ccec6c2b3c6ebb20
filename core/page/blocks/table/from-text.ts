import { readCsv } from '../../../formats/csv.ts';
import type { Cell, Table, TableRow } from './schema.ts';
import { TABLE_MOST } from './schema.ts';

/** Text that is longer is no table to be read on a page. */
const MOST_LETTERS = 2_000_000;
/** Commas stand in sentences too: so many lines that all part alike are data. */
const LEAST_ROWS_BY_COMMA = 3;

/**
 * Plain text as a table, as spreadsheets and files of comma-separated values give it (RFC 4180): by tabs, or by semicolons or
 * commas where every line has as many. Null for text that is none. The first row becomes headings where it says words over
 * figures.
 */
export function tableFromText(text: string, newId: () => string): Table | null {
  const read = rowsFromText(text);
  if (!read) return null;
  const { rows, isHeaded } = read;
  return {
    type: 'table',
    attrs: { id: newId(), caption: '' },
    content: rows.map((fields, at) => rowOf(fields, isHeaded && at === 0 ? 'tableHeader' : 'tableCell')),
  };
}

/** The rows of such a text, and whether the first says words over figures; null for text that is none. */
export function rowsFromText(text: string): { readonly rows: Rows; readonly isHeaded: boolean } | null {
  if (text.length > MOST_LETTERS) return null;
  const rows = rowsBy(text, '\t', 2) ?? rowsBy(text, ';', 2) ?? byComma(text);
  return rows && { rows, isHeaded: saysHeadings(rows) };
}

type Rows = readonly (readonly string[])[];

/** A blank behind a comma, or nothing behind any, is how letters have it, and data do not. */
function byComma(text: string): Rows | null {
  const rows = rowsBy(text, ',', LEAST_ROWS_BY_COMMA);
  if (!rows) return null;
  const isSentence = rows.some((fields) => fields.some((field) => field.startsWith(' ')));
  const hasNoEnd = rows.every((fields) => fields.at(-1)?.trim() === '');
  return isSentence || hasNoEnd ? null : rows;
}

/** The rows of a text that all have the same fields, at least two; null where they have not. */
function rowsBy(text: string, separator: string, least: number): Rows | null {
  if (!text.includes(separator)) return null;
  const rows = readCsv(text.replace(/^\uFEFF/, ''), separator);
  const [first] = rows;
  const isTable =
    first !== undefined &&
    first.length >= 2 &&
    first.length <= TABLE_MOST.columns &&
    rows.length >= least &&
    rows.length <= TABLE_MOST.rows &&
    first.length * rows.length <= TABLE_MOST.cells &&
    rows.every((fields) => fields.length === first.length);
  return isTable ? rows : null;
}

const FIGURE = /^[\s+\-−±<>~]*[\p{Sc}]?[\d.,:\s%/]*\d[\d.,:\s%/]*[\p{L}\p{Sc}%°]{0,4}$/u;

function saysHeadings([head = [], ...others]: Rows): boolean {
  const isFigure = (field: string) => FIGURE.test(field.slice(0, 40));
  const isNamed = head.slice(1).every((field) => field.trim() !== '' && !isFigure(field));
  return isNamed && others.some((fields) => fields.some(isFigure));
}

function rowOf(fields: readonly string[], type: Cell['type']): TableRow {
  return { type: 'tableRow', content: fields.map((field) => cellOf(field, type)) };
}

function cellOf(field: string, type: Cell['type']): Cell {
  const lines = field.split(/\r\n|[\r\n]/).map((line) => line.trim());
  const said = lines.filter((line) => line !== '');
  return {
    type,
    content:
      said.length === 0
        ? [{ type: 'paragraph' }]
        : said.map((text) => ({ type: 'paragraph' as const, content: [{ type: 'text' as const, text }] })),
  };
}
