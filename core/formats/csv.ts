/**
 * Rows as CSV (RFC 4180): fields with a comma, a quote or a line break are quoted, lines end with CRLF. A text that a
 * spreadsheet would run as a formula gets a leading apostrophe, as spreadsheets write it themselves; so does what stands
 * behind a semicolon or a tab, at which spreadsheets of some languages part the fields, whatever is quoted. `withoutGuards`
 * takes it away again, so that what goes there and back is the same: what has an apostrophe there already gets one more.
 */
export function writeCsv(rows: readonly (readonly (string | number)[])[]): string {
  return rows.map((row) => `${row.map(field).join(',')}\r\n`).join('');
}

/** What may begin a formula, in its plain and its full-width form, at the start of what may become a field. */
const FORMULA = /(^|[;\t\r\n])('{0,9}[ \u00a0]{0,9}[=+\-@|＝＋－＠])/g;
const GUARDED = /(^|[;\t\r\n])'('{0,9}[ \u00a0]{0,9}[=+\-@|＝＋－＠])/g;

/** A field as it was before `writeCsv` kept a spreadsheet from running it. */
export const withoutGuards = (field: string): string => field.replace(GUARDED, '$1$2');

function field(value: string | number): string {
  if (typeof value === 'number') return String(value);
  const safe = value.replace(FORMULA, "$1'$2");
  return /[",;\t\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

/**
 * Reads rows of fields (RFC 4180, with any separator): quoted fields may hold the separator, line breaks and doubled quotes.
 * A quote that is never closed is read as text to the end. Lines end with CRLF, LF or CR; a last empty one is none. Linear.
 */
export function readCsv(text: string, separator: string): readonly (readonly string[])[] {
  const rows: string[][] = [];
  let row: string[] = [];
  let at = 0;
  while (at < text.length || row.length > 0) {
    const { value, end } = fieldAt(text, at, separator);
    row.push(value);
    at = end;
    if (text[at] === separator) {
      at += 1;
      if (at < text.length) continue;
      row.push('');
    }
    if (text[at] === '\r' && text[at + 1] === '\n') at += 1;
    at += 1;
    rows.push(row);
    row = [];
  }
  return rows;
}

function fieldAt(
  text: string,
  from: number,
  separator: string,
): { readonly value: string; readonly end: number } {
  if (text[from] !== '"') return plainField(text, from, separator);
  let value = '';
  let at = from + 1;
  for (;;) {
    const quote = text.indexOf('"', at);
    if (quote < 0) return { value: value + text.slice(at), end: text.length };
    value += text.slice(at, quote);
    if (text[quote + 1] !== '"') {
      const rest = plainField(text, quote + 1, separator);
      return { value: value + rest.value, end: rest.end };
    }
    value += '"';
    at = quote + 2;
  }
}

function plainField(text: string, from: number, separator: string) {
  let end = from;
  while (end < text.length && text[end] !== separator && text[end] !== '\n' && text[end] !== '\r') end += 1;
  return { value: text.slice(from, end), end };
}
