import isEqual from 'fast-deep-equal';
import * as v from 'valibot';
import { readCsv, withoutGuards, writeCsv } from '../formats/csv.ts';
import { decodeWestern } from '../formats/decode-text.ts';
import { fromStored, STORED, toStored } from '../stored.ts';
import type { HouseLicence } from './house-licence.ts';
import { type Label, type LabelPatch, LabelSchema } from './label.ts';
import { LEDGER_COLUMNS, type LedgerColumn, type LedgerSubject } from './ledger-columns.ts';
import { LABEL_FIELD_WORDS, sayLabelField } from './say-label.ts';
import { type Terms, TermsSchema } from './terms.ts';

/** Most rows of one file; who has more brings several. */
export const MOST_LEDGER_ROWS = 50_000;

const HEAD: readonly string[] = ['id', 'file', ...LEDGER_COLUMNS.map(({ name }) => name)];

/** The first row of the ledger as CSV. */
export const ledgerCsvHead = (): string => writeCsv([HEAD]);

/** Pieces as rows of CSV (RFC 4180), without the head. What a spreadsheet would run is kept from running. */
export function ledgerCsv(pieces: readonly LedgerSubject[]): string {
  return writeCsv(
    pieces.map(({ id, stem, extension, label }) => [
      id,
      `${stem}.${extension}`,
      ...LEDGER_COLUMNS.map(({ write }) => write(label)),
    ]),
  );
}

/** A piece as a line of the ledger as JSON: its whole label, with the version in which it is written. */
export const ledgerJsonLine = ({ id, stem, extension, label }: LedgerSubject): string =>
  JSON.stringify({ id, file: `${stem}.${extension}`, label: toStored(STORED.label, label) });

/** A row of a ledger that was brought: which piece it is about, what it says of it, and what of it cannot be read. */
export interface LedgerLine {
  /** In the file, the head being 1; in JSON the place in the list. */
  readonly number: number;
  readonly id: string;
  readonly file: string;
  readonly label: LabelPatch;
  readonly terms: Partial<Terms>;
  readonly faults: readonly string[];
}

/** A ledger as it was read, or why none of it could be. `passedOver`: headings that mean nothing here. */
export type LedgerReading =
  | { readonly kind: 'read'; readonly lines: readonly LedgerLine[]; readonly passedOver: readonly string[] }
  | { readonly kind: 'refused'; readonly why: string };

/**
 * Reads a ledger from a file: JSON, or CSV parted by commas, semicolons, tabs or bars, in UTF-8, UTF-16 with its mark, or Windows-1252.
 * `ofHouse`: the licences of the house, which rows may name. What is not said in a column that is there is unsaid; a column that is not there leaves its field alone. Linear.
 */
export function readLedger(bytes: Uint8Array, ofHouse: readonly HouseLicence[] = []): LedgerReading {
  const text = decoded(bytes).trimStart();
  if (text === '') return { kind: 'refused', why: 'The file is empty. Nothing was changed.' };
  return text.startsWith('{') || text.startsWith('[') ? readJson(text) : readTable(text, ofHouse);
}

/** By its byte order mark; without one UTF-8, and where it is not that, what spreadsheets write in its place. */
function decoded(bytes: Uint8Array): string {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return decodeWestern(bytes);
  }
}

const SEPARATORS = [',', ';', '\t', '|'] as const;

function readTable(text: string, ofHouse: readonly HouseLicence[]): LedgerReading {
  const head = text.slice(0, Math.max(0, text.search(/[\r\n]|$/)));
  const known = (separator: string) => (readCsv(head, separator)[0] ?? []).filter(isKnown).length;
  const [separator] = [...SEPARATORS].sort((one, other) => known(other) - known(one));
  const rows = readCsv(text, separator ?? ',').map((row) => row.map((field) => withoutGuards(field).trim()));
  const [headings = [], ...body] = rows;
  const names = headings.map(plain);
  if (!names.includes('id') && !names.includes('file'))
    return {
      kind: 'refused',
      why: 'No column is called “id” or “file”, so it cannot be told which pieces the rows are about. Take the ledger away to see how one looks. Nothing was changed.',
    };
  if (body.length > MOST_LEDGER_ROWS)
    return {
      kind: 'refused',
      why: `It has ${body.length.toLocaleString('en-GB')} rows, and at most ${MOST_LEDGER_ROWS.toLocaleString('en-GB')} are read at once. Bring it in parts. Nothing was changed.`,
    };
  const columns = names.map(columnOf);
  return {
    kind: 'read',
    lines: body.flatMap((row, at) =>
      row.every((field) => field === '') ? [] : [lineOf(row, at + 2, names, columns, ofHouse)],
    ),
    passedOver: headings.filter((heading) => heading !== '' && !isKnown(heading)),
  };
}

const plain = (heading: string): string =>
  heading
    .replace(/^\ufeff/, '')
    .trim()
    .toLowerCase();
const columnOf = (name: string): LedgerColumn | undefined =>
  LEDGER_COLUMNS.find((column) => column.name === name || column.also.includes(name));
const isKnown = (heading: string): boolean =>
  ['id', 'file'].includes(plain(heading)) || columnOf(plain(heading)) !== undefined;

function lineOf(
  row: readonly string[],
  number: number,
  names: readonly string[],
  columns: readonly (LedgerColumn | undefined)[],
  ofHouse: readonly HouseLicence[],
): LedgerLine {
  const at = (name: string) => row[names.indexOf(name)] ?? '';
  const told = columns.flatMap((column, place) => {
    const field = row[place];
    return column && field !== undefined ? [{ column, told: column.read(field, ofHouse) }] : [];
  });
  const tooMany = row.length > names.length && row.slice(names.length).some((field) => field !== '');
  return {
    number,
    id: at('id'),
    file: at('file'),
    label: Object.assign({}, ...told.map(({ told: { label } }) => label)),
    terms: Object.assign({}, ...told.map(({ told: { terms } }) => terms)),
    faults: [
      ...told.flatMap(({ column, told: { fault } }) => (fault ? [`${column.name}: ${fault}`] : [])),
      ...(tooMany ? ['It has more fields than the first row has headings.'] : []),
    ],
  };
}

const RowSchema = v.object({
  id: v.optional(v.pipe(v.string(), v.maxLength(100)), ''),
  file: v.optional(v.pipe(v.string(), v.maxLength(300)), ''),
  label: v.unknown(),
});
const RowsSchema = v.union([
  v.pipe(v.array(v.unknown()), v.maxLength(MOST_LEDGER_ROWS)),
  v.pipe(
    v.object({ pieces: v.pipe(v.array(v.unknown()), v.maxLength(MOST_LEDGER_ROWS)) }),
    v.transform(({ pieces }) => pieces),
  ),
]);

function readJson(text: string): LedgerReading {
  const read = v.safeParse(v.pipe(v.string(), v.parseJson(), RowsSchema), text);
  if (!read.success)
    return {
      kind: 'refused',
      why: 'It is no list of pieces in JSON, or a longer one than is read at once. Nothing was changed.',
    };
  return {
    kind: 'read',
    lines: read.output.map((row, at) => jsonLine(row, at + 1)),
    passedOver: [],
  };
}

function jsonLine(stored: unknown, number: number): LedgerLine {
  const nothing = { number, id: '', file: '', label: {}, terms: {}, faults: [] as readonly string[] };
  const row = v.safeParse(RowSchema, stored);
  if (!row.success) return { ...nothing, faults: ['It is no piece: it has neither ID nor file name.'] };
  const { id, file } = row.output;
  const label = v.safeParse(LabelSchema, fromStored(STORED.label, row.output.label));
  return label.success
    ? { ...nothing, id, file, label: label.output }
    : { ...nothing, id, file, faults: [`Its label cannot be read: ${label.issues[0].message}`] };
}

/** One field that a row would change: what it says now and then, in words. */
interface LedgerChange {
  readonly field: string;
  readonly name: string;
  readonly before: string;
  readonly after: string;
  /** Its file or source says what stands there now, and nobody has kept it. */
  readonly contradictsFile: boolean;
}

/** What a row would do to a piece: the change to its label, and each field of it in words; nothing where nothing changes. */
export interface LedgerEffect {
  readonly patch: LabelPatch;
  readonly changes: readonly LedgerChange[];
  readonly faults: readonly string[];
}

/** What a row would change of the label that stands. Throws nothing: what cannot be is a fault of the row. */
export function ledgerEffect(
  { label: said, terms, faults }: LedgerLine,
  label: Label,
  drafted: readonly string[],
): LedgerEffect {
  const whole = v.safeParse(TermsSchema, { ...label.terms, ...terms });
  const wanted: LabelPatch = {
    ...said,
    ...(Object.keys(terms).length > 0 && whole.success ? { terms: whole.output } : {}),
  };
  const fields = Object.entries(wanted).filter(
    ([field, value]) => !isEqual(value, Object.entries(label).find(([name]) => name === field)?.[1]),
  );
  return {
    patch: Object.fromEntries(fields),
    changes: fields.map(([field, value]) => ({
      field,
      name: LABEL_FIELD_WORDS[field] ?? field,
      before: sayLabelField(field, Object.entries(label).find(([name]) => name === field)?.[1]),
      after: sayLabelField(field, value),
      contradictsFile: drafted.includes(field),
    })),
    faults: whole.success ? faults : [...faults, whole.issues[0].message],
  };
}
