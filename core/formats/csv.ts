/**
 * Rows as CSV (RFC 4180): fields with a comma, a quote or a line break are quoted, lines end with CRLF. A text that a
 * spreadsheet would run as a formula gets a leading apostrophe, as spreadsheets write it themselves.
 */
export function writeCsv(rows: readonly (readonly (string | number)[])[]): string {
  return rows.map((row) => `${row.map(field).join(',')}\r\n`).join('');
}

function field(value: string | number): string {
  if (typeof value === 'number') return String(value);
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
