import { LedgerChangedSchema } from '#api/rights.ts';
import { isLabelField, type LabelPatch } from '#core/rights/label.ts';
import { requestJson } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { ledger } from '../undo/ledger.ts';
import type { BroughtRow } from './read-ledger.ts';

/** As many in one request as are done in a second or so, so that progress is seen and it can be stopped. */
const AT_A_TIME = 50;

interface Change {
  readonly id: string;
  readonly version: number;
  readonly label: LabelPatch;
  readonly drafted: string[];
}

/** What became of a ledger that was brought: how many changed, and which rows stay as they were, and why. */
export interface Brought {
  readonly changed: number;
  readonly left: readonly { readonly number: number; readonly why: string }[];
}

/**
 * Changes the pieces of a ledger, a few at a time; stopped, what is done stays, and bringing the same file again does the rest. One undo takes all of it
 * back, but for what somebody changed since.
 */
export function bringLedger(
  rows: readonly BroughtRow[],
  onProgress: (done: number) => void,
  signal: AbortSignal,
): Promise<Brought> {
  return ledger.during(async () => {
    const left: { number: number; why: string }[] = [];
    const backs: Change[] = [];
    const ahead: Change[] = [];
    for (let at = 0; at < rows.length && !signal.aborted; at += AT_A_TIME) {
      onProgress(at);
      const some = rows.slice(at, at + AT_A_TIME);
      const answers = await sendChanges(
        some.flatMap(({ piece, effect }) =>
          piece ? [{ id: piece.id, version: piece.version, label: effect.patch, drafted: [] }] : [],
        ),
      );
      for (const row of some) {
        const answer = answers.find(({ id }) => id === row.piece?.id);
        if (!row.piece || !answer || answer.version === null) {
          left.push({ number: row.line.number, why: answer?.why ?? 'It is not on the shelf.' });
          continue;
        }
        backs.push({ ...backOf(row), id: row.piece.id, version: answer.version });
        ahead.push({ id: row.piece.id, version: answer.version + 1, label: row.effect.patch, drafted: [] });
      }
    }
    if (backs.length > 0)
      ledger.add({
        name: `bringing a ledger in (${backs.length === 1 ? '1 piece' : `${backs.length} pieces`})`,
        scope: 'shelf',
        undo: () => sendAll(backs),
        redo: () => sendAll(ahead),
      });
    refresh();
    return { changed: backs.length, left };
  });
}

function backOf({ piece, effect }: BroughtRow): Omit<Change, 'id' | 'version'> {
  const fields = Object.keys(effect.patch);
  const before = Object.entries(piece?.label ?? {}).filter(([field]) => fields.includes(field));
  return {
    label: Object.fromEntries(before),
    drafted: (piece?.drafted ?? []).filter((field) => isLabelField(field) && fields.includes(field)),
  };
}

async function sendAll(changes: readonly Change[]): Promise<void> {
  const why: string[] = [];
  for (let at = 0; at < changes.length; at += AT_A_TIME) {
    const answers = await sendChanges(changes.slice(at, at + AT_A_TIME));
    why.push(...answers.filter(({ version }) => version === null).map((answer) => answer.why));
  }
  refresh();
  const [first] = why;
  if (first) throw new Error(`${why.length} of ${changes.length} stay as they are: ${first}`);
}

const sendChanges = (rows: readonly Change[]) =>
  requestJson('post /rights/changes', LedgerChangedSchema, { body: { rows: [...rows] } });

function refresh(): void {
  for (const key of ['rights', 'shelf', 'asset', 'desk', 'pages', 'uses', 'history', 'preview'])
    void queryClient.invalidateQueries({ queryKey: [key] });
}
