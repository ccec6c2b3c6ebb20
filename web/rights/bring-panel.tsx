import { useEffect, useRef, useState } from 'react';
import { sayFailure } from '../api/client.ts';
import { Table } from '../table/table.tsx';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Panel } from '../ui/panel.tsx';
import { Progress } from '../ui/progress.tsx';
import { toast } from '../ui/toast.ts';
import { type Brought, bringLedger } from './bring-ledger.ts';
import { type BroughtLedger, type BroughtRow, isChanging, readLedgerFile } from './read-ledger.ts';

const rowsOf = (count: number) => (count === 1 ? '1 row' : `${count.toLocaleString('en-GB')} rows`);
const piecesOf = (count: number) => (count === 1 ? '1 piece' : `${count.toLocaleString('en-GB')} pieces`);

/** A ledger brought in: chosen, looked at row by row beside what stands, and only then done. */
export function BringPanel({ onClose }: { readonly onClose: () => void }) {
  const [brought, setBrought] = useState<BroughtLedger | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [progress, setProgress] = useState<{ readonly done: number; readonly of: number } | null>(null);
  const [showsAll, setShowsAll] = useState(false);
  const [result, setResult] = useState<Brought | null>(null);
  const work = useRef<AbortController | null>(null);
  useEffect(() => () => work.current?.abort(), []);

  const during = async (of: number, deed: (signal: AbortSignal) => Promise<void>) => {
    work.current = new AbortController();
    setFault(null);
    setProgress({ done: 0, of });
    try {
      await deed(work.current.signal);
    } catch (error) {
      if (!work.current.signal.aborted) setFault(sayFailure(error));
    }
    setProgress(null);
  };
  const read = (file: File | undefined) =>
    file &&
    during(0, async (signal) => {
      setBrought(await readLedgerFile(file, (done, of) => setProgress({ done, of }), signal));
    });
  const changing = brought?.rows.filter(isChanging) ?? [];
  const bring = () =>
    during(changing.length, async (signal) => {
      const done = await bringLedger(
        changing,
        (count) => setProgress({ done: count, of: changing.length }),
        signal,
      );
      setResult(done);
      toast(`${piecesOf(done.changed)} changed by the ledger.`);
      if (done.left.length === 0 && done.changed === changing.length) onClose();
    });
  return (
    <Panel
      title="Bring a ledger in"
      about="A CSV or JSON file with a column “id” or “file”, as the ledger that is taken away has. Nothing is changed before you have seen what would be."
      isOpen
      onClose={onClose}
      className="w-[min(940px,calc(100vw-24px))]"
    >
      {progress ? (
        <div className="mt-3" role="status">
          <p className="mb-1.5">
            {progress.of === 0 ? 'Reading the file...' : `${progress.done} of ${rowsOf(progress.of)}`}
          </p>
          <Progress name="The ledger" value={progress.of === 0 ? 0 : (100 * progress.done) / progress.of} />
        </div>
      ) : null}
      {brought ? (
        <Preview brought={brought} showsAll={showsAll} onShowsAll={setShowsAll} />
      ) : (
        <label className="mt-3 block">
          <span className="mb-1 block text-sm text-soft">The file</span>
          <input
            type="file"
            accept=".csv,.tsv,.txt,.json,text/csv,application/json"
            onChange={({ target }) => void read(target.files?.[0])}
          />
        </label>
      )}
      {result && result.left.length > 0 ? (
        <ul className="mt-2 list-disc pl-4.5 text-due">
          {result.left.slice(0, 20).map(({ number, why }) => (
            <li key={number}>
              Row {number}: {why}
            </li>
          ))}
        </ul>
      ) : null}
      <Fault says={fault} />
      <Deeds>
        {changing.length > 0 && !result ? (
          <Button kind="action" disabled={progress !== null} onClick={() => void bring()}>
            Change {piecesOf(changing.length)}
          </Button>
        ) : null}
        {progress ? <Button onClick={() => work.current?.abort()}>Stop</Button> : null}
        {brought && !progress && !result ? (
          <Button onClick={() => setBrought(null)}>Another file</Button>
        ) : null}
        <Button onClick={onClose}>Close</Button>
      </Deeds>
    </Panel>
  );
}

interface PreviewProps {
  readonly brought: BroughtLedger;
  readonly showsAll: boolean;
  readonly onShowsAll: (showsAll: boolean) => void;
}

function Preview({ brought: { rows, passedOver }, showsAll, onShowsAll }: PreviewProps) {
  const changing = rows.filter(isChanging).length;
  const unknown = rows.filter(({ piece }) => piece === null).length;
  const faulty = rows.filter(({ piece, effect }) => piece !== null && effect.faults.length > 0).length;
  const same = rows.length - changing - unknown - faulty;
  const shown = showsAll
    ? rows
    : rows.filter((row) => isChanging(row) || row.effect.faults.length > 0 || !row.piece);
  return (
    <div className="mt-3 grid gap-2">
      <p role="status">
        {[
          `${rowsOf(changing)} would change a piece`,
          same > 0 ? `${same} say what stands already` : '',
          unknown > 0 ? `${unknown} name nothing on the shelf` : '',
          faulty > 0 ? `${faulty} cannot be read and change nothing` : '',
        ]
          .filter(Boolean)
          .join(', ')}
        .{passedOver.length > 0 ? ` Passed over: ${passedOver.join(', ')}.` : ''}
      </p>
      {same > 0 ? (
        <Checkbox checked={showsAll} onChange={onShowsAll}>
          Show the rows that change nothing too
        </Checkbox>
      ) : null}
      {shown.length > 0 ? (
        <div className="h-[44vh] overflow-hidden border-t border-line">
          <Table
            about="What the ledger would change"
            rows={shown}
            keyOf={({ line }) => String(line.number)}
            scrollsBy={40}
            className="text-sm"
            isDue={(row) => !isChanging(row)}
            columns={[
              {
                id: 'row',
                heading: 'Row',
                className: 'font-mono text-2xs',
                cell: ({ line }) => line.number,
                sortBy: ({ line }) => line.number,
              },
              {
                id: 'piece',
                heading: 'Piece',
                cell: ({ piece, line }) => piece?.label.title || piece?.file || line.file || line.id,
              },
              { id: 'change', heading: 'Change', cell: (row) => <Says row={row} /> },
            ]}
          />
        </div>
      ) : null}
    </div>
  );
}

function Says({ row: { piece, effect } }: { readonly row: BroughtRow }) {
  if (!piece) return <span className="text-due">Nothing on the shelf has this ID or name.</span>;
  if (effect.faults.length > 0) return <span className="text-due">{effect.faults.join(' ')}</span>;
  if (effect.changes.length === 0) return <span className="text-soft">Stands so already.</span>;
  return (
    <ul className="grid gap-0.5">
      {effect.changes.map(({ field, name, before, after, contradictsFile }) => (
        <li key={field} className="wrap-anywhere">
          {name}: <del className="text-soft">{before || 'nothing'}</del>{' '}
          <ins className="no-underline">{after || 'nothing'}</ins>
          {contradictsFile ? <span className="text-due"> Its file says otherwise.</span> : null}
        </li>
      ))}
    </ul>
  );
}
