import {
  type ColumnDef,
  createSortedRowModel,
  rowSortingFeature,
  type SortingState,
  sortFn_alphanumeric,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { Fragment, type KeyboardEvent, type ReactNode, useMemo, useRef, useState } from 'react';
import { CheckBox } from '../ui/checkbox.tsx';
import { cx } from '../ui/cx.ts';
import { cellAfter } from './walk-cells.ts';

/** A column: its heading, what stands in each row, and by what it is sorted. */
export interface TableColumn<Row> {
  readonly id: string;
  readonly heading: string;
  /** The heading is heard and not seen: the column says by itself what it is. */
  readonly isHeadingHidden?: boolean;
  readonly cell: (row: Row) => ReactNode;
  /** What it is sorted by; a column without is not. */
  readonly sortBy?: (row: Row) => string | number;
  /** On a narrow screen it stands under the last column that does not fold and has a heading, instead of beside it. */
  readonly folds?: boolean;
  /** Of its cells. */
  readonly className?: string;
}

/** Rows that can be chosen, and which are. */
export interface ChosenRows<Row> {
  readonly heading: string;
  readonly name: (row: Row) => string;
  readonly isChosen: (row: Row) => boolean;
  readonly isFixed?: (row: Row) => boolean;
  readonly onChosen: (row: Row, isChosen: boolean) => void;
}

interface TableProps<Row> {
  readonly about: string;
  readonly rows: readonly Row[];
  readonly columns: readonly TableColumn<Row>[];
  readonly keyOf: (row: Row) => string;
  readonly chosen?: ChosenRows<Row>;
  /** Rows that still need a hand stand out. */
  readonly isDue?: (row: Row) => boolean;
  /** One thing said across the columns from a certain one on, in the place of what they say; null to let them speak. */
  readonly instead?: { readonly from: number; readonly say: (row: Row) => ReactNode | null };
  /** What opens under a row, across all columns; null while it is closed. */
  readonly below?: (row: Row) => ReactNode | null;
  /** Fills what is about it and scrolls by itself; only the rows in sight are drawn. The usual height of a row in px. */
  readonly scrollsBy?: number;
  /** Small, inside a card. */
  readonly isSmall?: boolean;
  readonly className?: string;
}

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric },
});

/**
 * The product's one table: sorted by its headings, rows chosen by their boxes, walked through cell by cell with the
 * arrow keys, its head staying in sight, and on a narrow screen its lesser columns folded under the first.
 */
export function Table<Row extends object>(props: TableProps<Row>) {
  const {
    about,
    rows,
    columns,
    keyOf,
    chosen,
    isDue,
    instead,
    below,
    scrollsBy,
    isSmall = false,
    className,
  } = props;
  const [sorting, setSorting] = useState<SortingState>([]);
  const defs = useMemo(
    () =>
      columns.map(
        ({ id, sortBy }): ColumnDef<typeof features, Row, unknown> => ({
          id,
          accessorFn: sortBy ?? (() => ''),
          enableSorting: sortBy !== undefined,
          sortFn: 'alphanumeric',
        }),
      ),
    [columns],
  );
  const table = useTable({
    features,
    data: rows,
    columns: defs,
    getRowId: keyOf,
    state: { sorting },
    onSortingChange: setSorting,
  });
  const sorted = table.getRowModel().rows;
  const scroll = useRef<HTMLElement>(null);
  const virtual = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => scrollsBy ?? 0,
    overscan: 8,
    enabled: scrollsBy !== undefined,
  });
  const items = virtual.getVirtualItems();
  const shown = scrollsBy === undefined ? sorted.map((_, index) => index) : items.map(({ index }) => index);
  const walk = (event: KeyboardEvent) => {
    const next = cellAfter(event.target, event.key);
    if (!next) return;
    event.preventDefault();
    next.focus();
  };
  const folded = columns.filter(({ folds }) => folds);
  const foldInto = columns.findLast(({ folds, isHeadingHidden }) => !folds && !isHeadingHidden);
  const drawn = (
    <table
      className={cx('w-full', className)}
      aria-label={about}
      aria-rowcount={sorted.length + 1}
      onKeyDown={walk}
    >
      <thead>
        <tr>
          {chosen ? (
            <th scope="col" className={cx(headLook(isSmall), 'w-8.5')}>
              <span className="sr-only">{chosen.heading}</span>
            </th>
          ) : null}
          {columns.map((column) => (
            <Heading
              key={column.id}
              column={column}
              isSmall={isSmall}
              sorted={sorting.find(({ id }) => id === column.id)}
              onSort={() => table.getColumn(column.id)?.toggleSorting()}
            />
          ))}
        </tr>
      </thead>
      <tbody>
        <Spacer height={items[0]?.start ?? 0} />
        {shown.map((index) => {
          const row = sorted[index]?.original;
          if (!row) return null;
          const said = instead?.say(row) ?? null;
          const apart = said === null ? columns : columns.slice(0, instead?.from);
          const open = below?.(row) ?? null;
          return (
            <Fragment key={keyOf(row)}>
              <tr
                ref={scrollsBy === undefined ? undefined : virtual.measureElement}
                data-index={index}
                aria-rowindex={index + 2}
                className={cx(isDue?.(row) && 'bg-due-soft')}
              >
                {chosen ? (
                  <td className={cellLook(isSmall)}>
                    <CheckBox
                      aria-label={chosen.name(row)}
                      checked={chosen.isChosen(row)}
                      disabled={chosen.isFixed?.(row) ?? false}
                      onChange={(isOn) => chosen.onChosen(row, isOn)}
                    />
                  </td>
                ) : null}
                {apart.map((column) => (
                  <td
                    key={column.id}
                    tabIndex={-1}
                    className={cx(cellLook(isSmall), column.folds && 'max-narrow:hidden', column.className)}
                  >
                    {column.cell(row)}
                    {column === foldInto
                      ? folded.map((one) => (
                          <div key={one.id} className="narrow:hidden">
                            {one.cell(row)}
                          </div>
                        ))
                      : null}
                  </td>
                ))}
                {said === null ? null : (
                  <td tabIndex={-1} colSpan={columns.length - apart.length} className={cellLook(isSmall)}>
                    {said}
                  </td>
                )}
              </tr>
              {open === null ? null : (
                <tr>
                  <td colSpan={columns.length + (chosen ? 1 : 0)} className="pb-2">
                    {open}
                  </td>
                </tr>
              )}
            </Fragment>
          );
        })}
        <Spacer height={virtual.getTotalSize() - (items.at(-1)?.end ?? 0)} />
      </tbody>
    </table>
  );
  if (scrollsBy === undefined) return drawn;
  return (
    <section
      ref={scroll}
      className="h-full overflow-auto px-4.5 pb-4.5 max-narrow:p-2.5"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls is reached by the keyboard.
      tabIndex={0}
      aria-label={about}
    >
      {drawn}
    </section>
  );
}

interface HeadingProps<Row> {
  readonly column: TableColumn<Row>;
  readonly isSmall: boolean;
  readonly sorted: { readonly desc: boolean } | undefined;
  readonly onSort: () => void;
}

function Heading<Row>({ column, isSmall, sorted, onSort }: HeadingProps<Row>) {
  const { heading, isHeadingHidden = false, sortBy, folds } = column;
  const words = isHeadingHidden ? <span className="sr-only">{heading}</span> : heading;
  const Arrow = sorted?.desc ? ArrowDown : ArrowUp;
  return (
    <th
      scope="col"
      className={cx(headLook(isSmall), folds && 'max-narrow:hidden')}
      {...(sorted ? { 'aria-sort': sorted.desc ? 'descending' : 'ascending' } : {})}
    >
      {sortBy ? (
        <button
          type="button"
          className="group inline-flex items-center gap-1 font-[inherit] hover:underline"
          onClick={onSort}
        >
          {words}
          <Arrow
            size={12}
            aria-hidden
            className={sorted ? '' : 'opacity-0 group-hover:opacity-60 group-focus-visible:opacity-60'}
          />
        </button>
      ) : (
        words
      )}
    </th>
  );
}

/** The room of the rows that are not drawn. */
function Spacer({ height }: { readonly height: number }) {
  return height > 0 ? (
    // biome-ignore lint/a11y/noAriaHiddenOnFocusable: an empty row has nothing that could be focused.
    <tr aria-hidden="true">
      <td style={{ height }} />
    </tr>
  ) : null;
}

const cellLook = (isSmall: boolean) =>
  isSmall
    ? 'border-hairline border-t py-0.75 pr-1.5 align-middle'
    : 'border-line border-b px-2.5 py-1.5 align-middle';

const headLook = (isSmall: boolean) =>
  isSmall
    ? 'py-1 pr-1.5 text-left font-semibold text-2xs text-soft'
    : 'sticky top-0 z-1 bg-ground px-2.5 pt-3 pb-1.5 text-left text-sm shadow-[inset_0_-2px_var(--color-ink)]';
