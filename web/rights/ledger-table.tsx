import type { LedgerRow } from '#api/rights.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import { sayLedgerMark } from '#core/rights/ledger.ts';
import { lastDayOf } from '#core/rights/terms.ts';
import { Table, type TableColumn } from '../table/table.tsx';
import { Button } from '../ui/button.tsx';
import { type StandingRow, standingRows } from './ledger-lines.tsx';

const sayFrom = ({ asset: { label } }: LedgerRow): string =>
  [...new Set([label.creator, label.source])].filter(Boolean).join(', ');

interface LedgerTableProps {
  readonly rows: readonly LedgerRow[];
  readonly today: string;
  readonly chosen: ReadonlySet<string>;
  readonly onChosen: (chosen: ReadonlySet<string>) => void;
  readonly onOpen: (id: string) => void;
}

/** The same ledger as a table, for sorting, and for saying the same of many pieces. */
export function LedgerTable({ rows, today, chosen, onChosen, onOpen }: LedgerTableProps) {
  const columns: readonly TableColumn<StandingRow>[] = [
    {
      id: 'title',
      heading: 'Piece',
      sortBy: ({ row: { asset } }) => asset.label.title || asset.stem,
      cell: ({ row: { asset } }) => (
        <span className="flex items-center gap-2">
          <img className="h-8 w-12 shrink-0 bg-panel object-cover" src={asset.thumb} alt="" loading="lazy" />
          <Button kind="link" className="text-left" onClick={() => onOpen(asset.id)}>
            {asset.label.title || asset.stem}
          </Button>
        </span>
      ),
    },
    {
      id: 'licence',
      heading: 'Licence',
      sortBy: ({ row }) => termsOf(row.asset.label).short,
      cell: ({ row }) => termsOf(row.asset.label).short,
    },
    ...(
      [
        ['maker', 'Maker and source', (row: LedgerRow) => sayFrom(row)],
        ['ends', 'Until', (row: LedgerRow) => lastDayOf(row.asset.label.terms) ?? ''],
        ['pages', 'Pages', (row: LedgerRow) => (row.pages.length === 0 ? '' : String(row.pages.length))],
      ] as const
    ).map(([id, heading, says]) => ({
      id,
      heading,
      folds: true,
      className: id === 'maker' ? '' : 'whitespace-nowrap font-mono text-2xs',
      sortBy: ({ row }: StandingRow) => says(row),
      cell: ({ row }: StandingRow) => says(row),
    })),
    {
      id: 'mark',
      heading: 'Stands',
      folds: true,
      cell: ({ standing: { mark, group } }) => (
        <span className={group === 'settle' ? 'text-due' : ''}>
          {mark.code === 'in-order' ? '' : sayLedgerMark(mark)}
        </span>
      ),
    },
  ];
  return (
    <Table
      about="The ledger of rights"
      rows={standingRows(rows, today)}
      columns={columns}
      keyOf={({ row }) => row.asset.id}
      scrollsBy={44}
      className="text-sm"
      chosen={{
        heading: 'Choose',
        name: ({ row: { asset } }) => `Choose ${asset.label.title || asset.stem}`,
        isChosen: ({ row }) => chosen.has(row.asset.id),
        onChosen: ({ row }, isChosen) => {
          const next = new Set(chosen);
          if (isChosen) next.add(row.asset.id);
          else next.delete(row.asset.id);
          onChosen(next);
        },
      }}
    />
  );
}
