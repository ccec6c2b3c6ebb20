import { Readable } from 'node:stream';
import { inArray, or } from 'drizzle-orm';
import type * as v from 'valibot';
import type { Person, Reader } from '#api/people.ts';
import type {
  LedgerChangedSchema,
  LedgerChangesSchema,
  LedgerFound,
  LedgerLookupSchema,
  LedgerQuery,
} from '#api/rights.ts';
import { ledgerCsv, ledgerCsvHead, ledgerJsonLine } from '#core/rights/ledger-file.ts';
import type { Context } from '../context.ts';
import { held } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';
import { changeAsset } from '../shelf/change.ts';
import { type AssetRow, thumbAddress } from '../shelf/present.ts';
import { maySee } from '../shelf/seen.ts';
import { askLedger } from './ledger.ts';

/** The ledger as a file, piece after piece: as much of it is held as is asked for at a time. */
export function ledgerFile(
  context: Context,
  question: Omit<LedgerQuery, 'cursor'>,
  today: string,
  form: 'csv' | 'json',
  reader: Reader,
): Readable {
  return Readable.from(parts(context, question, today, form, reader));
}

async function* parts(
  context: Context,
  question: Omit<LedgerQuery, 'cursor'>,
  today: string,
  form: 'csv' | 'json',
  reader: Reader,
): AsyncGenerator<string> {
  yield form === 'csv' ? ledgerCsvHead() : '{"pieces":[\n';
  let before = '';
  for (let cursor: string | undefined; ; ) {
    const answer = await askLedger(context, cursor ? { ...question, cursor } : question, today, reader);
    if (form === 'csv') yield ledgerCsv(answer.rows);
    else if (answer.rows.length > 0) {
      yield before + answer.rows.map(ledgerJsonLine).join(',\n');
      before = ',\n';
    }
    if (answer.cursor === null) break;
    cursor = answer.cursor;
  }
  if (form === 'json') yield '\n]}\n';
}

/** How the pieces stand that rows of a ledger name, by ID or by file name. */
export async function lookUp(
  context: Context,
  { ids, files }: v.InferOutput<typeof LedgerLookupSchema>,
  reader: Reader,
): Promise<LedgerFound[]> {
  const stems = files.map((file) => file.replace(/\.[^.]*$/, ''));
  const named = [
    ...(ids.length > 0 ? [inArray(held.id, ids)] : []),
    ...(stems.length > 0 ? [inArray(held.stem, stems)] : []),
  ];
  if (named.length === 0) return [];
  const rows: readonly AssetRow[] = await context.db
    .select()
    .from(held)
    .where(or(...named));
  return rows
    .filter((row) => row.deletedAt === null && maySee(row, reader))
    .map((row) => ({
      id: row.id,
      version: row.version,
      file: `${row.stem}.${row.extension}`,
      thumb: thumbAddress(context, row),
      label: row.label,
      drafted: row.drafted,
    }));
}

/** Changes many labels, each as a person would change it by hand: on its version, with its history, or not at all. */
export async function changeMany(
  context: Context,
  rows: v.InferOutput<typeof LedgerChangesSchema>['rows'],
  person: Person,
  now: Date,
): Promise<v.InferOutput<typeof LedgerChangedSchema>> {
  const answers: v.InferOutput<typeof LedgerChangedSchema> = [];
  for (const { id, version, label, drafted } of rows) {
    try {
      const row = await changeAsset(context, id, version, { label, drafted }, person, now);
      answers.push({ id, version: row.version, why: '' });
    } catch (error) {
      if (!(error instanceof HttpProblem)) throw error;
      answers.push({ id, version: null, why: error.message });
    }
  }
  return answers;
}
