import { type LedgerFound, LedgerFoundSchema } from '#api/rights.ts';
import {
  type LedgerEffect,
  type LedgerLine,
  type LedgerReading,
  ledgerEffect,
} from '#core/rights/ledger-file.ts';
import { requestJson } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { houseLicencesQuery } from '../label/licences.ts';
import type { LedgerToRead } from './ledger.worker.ts';

/** Larger is no ledger that somebody works on. */
const MOST_BYTES = 100_000_000;
const MOST_MILLIS = 60_000;
const AT_A_TIME = 500;

/** A row of a ledger with the piece that it is about, and what it would change there. */
export interface BroughtRow {
  readonly line: LedgerLine;
  /** Null where no piece on the shelf is meant. */
  readonly piece: LedgerFound | null;
  readonly effect: LedgerEffect;
}

/** A ledger as it was brought, each row beside what stands. */
export interface BroughtLedger {
  readonly rows: readonly BroughtRow[];
  readonly passedOver: readonly string[];
}

/** Reads a file off the screen's own thread, and looks up what its rows are about. Throws an Error with a sentence. */
export async function readLedgerFile(
  file: File,
  onProgress: (done: number, of: number) => void,
  signal: AbortSignal,
): Promise<BroughtLedger> {
  if (file.size > MOST_BYTES)
    throw new Error('The file is larger than 100 MB. Bring it in parts; nothing was changed.');
  const reading = await inWorker(
    {
      bytes: await file.arrayBuffer(),
      ofHouse: (await queryClient.ensureQueryData(houseLicencesQuery)).map(({ licence }) => licence),
    },
    signal,
  );
  if (reading.kind === 'refused') throw new Error(reading.why);
  const { lines, passedOver } = reading;
  const rows: BroughtRow[] = [];
  for (let at = 0; at < lines.length; at += AT_A_TIME) {
    signal.throwIfAborted();
    onProgress(at, lines.length);
    const some = lines.slice(at, at + AT_A_TIME);
    const body = {
      ids: some.flatMap(({ id }) => (id === '' ? [] : [id.slice(0, 100)])),
      files: some.flatMap(({ id, file: name }) => (id === '' && name !== '' ? [name.slice(0, 300)] : [])),
    };
    const found = await requestJson('post /rights/lookups', LedgerFoundSchema, { body, signal });
    rows.push(...withPieces(some, found));
  }
  return { rows: withoutTwice(rows), passedOver };
}

function inWorker(toRead: LedgerToRead, signal: AbortSignal): Promise<LedgerReading> {
  const worker = new Worker(new URL('./ledger.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<LedgerReading>((resolve, reject) => {
    const limit = setTimeout(
      () => reject(new Error('The file takes too long to read. Bring it in parts; nothing was changed.')),
      MOST_MILLIS,
    );
    signal.addEventListener('abort', () => reject(new Error('Stopped. Nothing was changed.')));
    worker.onmessage = ({ data }: MessageEvent<LedgerReading>) => {
      clearTimeout(limit);
      resolve(data);
    };
    worker.onerror = () => reject(new Error('The file cannot be read. Nothing was changed.'));
    worker.postMessage(toRead, [toRead.bytes]);
  }).finally(() => worker.terminate());
}

function withPieces(lines: readonly LedgerLine[], found: readonly LedgerFound[]): readonly BroughtRow[] {
  const byId = new Map(found.map((one) => [one.id, one]));
  const byStem = new Map(found.map((one) => [stemOf(one.file), one]));
  return lines.map((line) => {
    const piece = (line.id === '' ? byStem.get(stemOf(line.file)) : byId.get(line.id)) ?? null;
    return {
      line,
      piece,
      effect: piece
        ? ledgerEffect(line, piece.label, piece.drafted)
        : { patch: {}, changes: [], faults: line.faults },
    };
  });
}

const stemOf = (file: string): string => file.replace(/\.[^.]*$/, '').toLowerCase();

/** Of two rows about one piece neither is taken for the right one. */
function withoutTwice(rows: readonly BroughtRow[]): readonly BroughtRow[] {
  const counts = new Map<string, number>();
  for (const { piece } of rows) if (piece) counts.set(piece.id, (counts.get(piece.id) ?? 0) + 1);
  return rows.map((row) =>
    row.piece && (counts.get(row.piece.id) ?? 0) > 1
      ? {
          ...row,
          effect: { ...row.effect, faults: [...row.effect.faults, 'Another row is about the same piece.'] },
        }
      : row,
  );
}

/** Whether a row changes something and can. */
export const isChanging = ({ piece, effect }: BroughtRow): boolean =>
  piece !== null && effect.faults.length === 0 && effect.changes.length > 0;
