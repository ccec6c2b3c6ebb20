/**
 * Rows as CSV (RFC 4180): fields with a comma, a quote or a line break are quoted, lines end with CRLF. A text that a
 * spreadsheet would run as a formula gets a leading apostrophe, as spreadsheets write it themselves; so does what stands
 * behind a semicolon or a tab, at which spreadsheets of some languages part the fields, whatever is quoted.
 */
export function writeCsv(rows: readonly (readonly (string | number)[])[]): string {
  return rows.map((row) => `${row.map(field).join(',')}\r\n`).join('');
}

/** What may begin a formula, in its plain and its full-width form, at the start of what may become a field. */
const FORMULA = /(^|[;\t\r\n])([ \u00a0]{0,9}[=+\-@|＝＋－＠])/g;

function field(value: string | number): string {
  if (typeof value === 'number') return String(value);
  const safe = value.replace(FORMULA, "$1'$2");
  return /[",;\t\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
