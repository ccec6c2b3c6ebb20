import type { ReactNode } from 'react';
import type { PreviewRow, RunStep } from '#api/runs.ts';
import { sayBytes } from '#core/media/weight.ts';
import { needsLook } from '#core/run/warning.ts';
import { type ChosenRows, Table, type TableColumn } from '../table/table.tsx';
import { NameCell } from './name-cell.tsx';
import { sayLeftOut } from './run-words.ts';
import { Warnings } from './warnings.tsx';

interface RunTableProps {
  readonly rows: readonly (PreviewRow | RunStep)[];
  /** Present while the run is put together: rows can be changed and left out. */
  readonly edit?: {
    /** Whether a person left a piece out: known before the rows are settled anew. */
    readonly isLeftOut: (assetId: string) => boolean;
    readonly onLeftOut: (assetId: string, leftOut: boolean) => void;
    readonly onStem: (assetId: string, stem: string | null) => void;
    readonly onFault: (assetId: string, isFaulty: boolean) => void;
  };
}

type AnyRow = PreviewRow | RunStep;

const ROW_PX = 58;

/** Before a run, what should be looked at; afterwards, what was not done. */
const isDue = (row: AnyRow) =>
  'state' in row ? row.state === 'refused' : row.leftOut === 'comp' || row.warnings.some(needsLook);

/** Every piece of a run, before and after. */
export function RunTable({ rows, edit }: RunTableProps) {
  const columns: readonly TableColumn<AnyRow>[] = [
    {
      id: 'picture',
      heading: 'Picture',
      isHeadingHidden: true,
      cell: (row) => <img className="h-11 max-w-21 bg-blank" src={row.thumb} alt="" loading="lazy" />,
    },
    {
      id: 'now',
      heading: 'Now',
      sortBy: ({ before }) => before.stem,
      className: 'wrap-anywhere font-mono text-mono',
      cell: (row) => (
        <span className={isDue(row) ? 'text-ink' : 'text-soft'}>
          {row.before.stem}
          <span className="block">
            {row.width} × {row.height}
          </span>
        </span>
      ),
    },
    {
      id: 'becomes',
      heading: 'Becomes',
      sortBy: ({ after }) => after.stem,
      cell: (row) => (
        <NameCell
          row={row}
          onStem={edit ? (stem) => edit.onStem(row.assetId, stem) : null}
          {...(edit ? { onFault: (isFaulty) => edit.onFault(row.assetId, isFaulty) } : {})}
        />
      ),
    },
    {
      id: 'sizes',
      heading: 'Sizes',
      folds: true,
      sortBy: ({ files }) => files.length,
      cell: (row) => <SizesCell row={row} />,
    },
    {
      id: 'weight',
      heading: edit ? 'Weight, about' : 'Weight',
      folds: true,
      sortBy: ({ bytes }) => bytes,
      cell: (row) => <WeightCell row={row} />,
    },
  ];
  return (
    <Table
      about="Pieces of this run"
      rows={rows}
      columns={columns}
      keyOf={({ assetId }) => assetId}
      isDue={isDue}
      scrollsBy={ROW_PX}
      instead={{ from: 2, say: sayInstead }}
      {...(edit ? { chosen: chosenRows(edit) } : {})}
    />
  );
}

const chosenRows = (edit: NonNullable<RunTableProps['edit']>): ChosenRows<AnyRow> => ({
  heading: 'Takes part',
  name: ({ before }) => `${before.stem} takes part`,
  isChosen: ({ assetId, leftOut }) => leftOut !== 'comp' && !edit.isLeftOut(assetId),
  isFixed: ({ leftOut }) => leftOut === 'comp',
  onChosen: ({ assetId }, takesPart) => edit.onLeftOut(assetId, !takesPart),
});

/** Why a piece takes no part. */
function sayInstead(row: AnyRow): ReactNode | null {
  if (!row.leftOut) return null;
  const look = row.leftOut === 'comp' ? 'text-due' : isDue(row) ? 'text-ink' : 'text-soft';
  return <span className={look}>{sayLeftOut(row.leftOut)}</span>;
}

function SizesCell({ row }: { readonly row: PreviewRow | RunStep }) {
  const sizes = [...new Map(row.files.map((file) => [`${file.recipe} ${file.width}`, file])).values()];
  return (
    <>
      {sizes.length === 0 ? <span className="text-soft">none</span> : null}
      <span className="font-mono text-mono">{sizes.map(saySize).join(' · ')}</span>
      <Warnings warnings={row.warnings} place="sizes" />
    </>
  );
}

/** Kept on one line. */
const saySize = ({ width, height }: { readonly width: number; readonly height: number }) =>
  `${width}\u00a0×\u00a0${height}`;

function WeightCell({ row }: { readonly row: PreviewRow | RunStep }) {
  const guessed = row.files.reduce((sum, { bytes }) => sum + bytes, 0);
  const made = 'madeBytes' in row ? row.madeBytes : null;
  return (
    <>
      {row.files.length > 0 ? (
        <span className="font-mono text-mono whitespace-nowrap">
          {sayBytes(row.bytes)} → {sayBytes(made ?? guessed)}
        </span>
      ) : (
        <span className="font-mono text-mono whitespace-nowrap">{sayBytes(row.bytes)}</span>
      )}
      {'state' in row ? <StateWords step={row} /> : null}
    </>
  );
}

const STATE_WORDS: Readonly<Record<RunStep['state'], string>> = {
  waiting: 'Waits',
  done: 'Done',
  refused: 'Left as it was',
  undone: 'Taken back',
  out: 'Took no part',
};

function StateWords({ step }: { readonly step: RunStep }) {
  return (
    <span
      className={
        step.state === 'refused' ? 'block text-sm leading-4 text-due' : 'block text-sm leading-4 text-soft'
      }
    >
      {step.sentence || STATE_WORDS[step.state]}
    </span>
  );
}
