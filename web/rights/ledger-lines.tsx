import { type KeyboardEvent, useMemo } from 'react';
import type { LedgerRow } from '#api/rights.ts';
import {
  LEDGER_GROUP_WORDS,
  LEDGER_GROUPS,
  type LedgerStanding,
  ledgerStanding,
  sayLedgerMark,
} from '#core/rights/ledger.ts';
import { lastDayOf } from '#core/rights/terms.ts';
import { cx } from '../ui/cx.ts';
import { type Axis, axisOf, type Span, spanOn } from './axis.ts';
import { sayDeal, sayStands } from './say-row.ts';

export interface LedgerLinesProps {
  readonly rows: readonly LedgerRow[];
  readonly today: string;
  readonly withinDays: number;
  readonly openId: string | null;
  readonly onOpen: (id: string) => void;
}

/** A row with how it stands today. */
export interface StandingRow {
  readonly row: LedgerRow;
  readonly standing: LedgerStanding;
}

export function standingRows(rows: readonly LedgerRow[], today: string): readonly StandingRow[] {
  return rows.map((row) => {
    const { label, drafted } = row.asset;
    const piece = { label, isLicenceClaimed: drafted.includes('licence'), pages: row.pages.length };
    return { row, standing: ledgerStanding(piece, today) };
  });
}

const COLUMNS = 'grid grid-cols-[318px_minmax(0,1fr)] max-narrow:grid-cols-1';

/** The ledger on an axis of time: each term a dimension line with today across it, the most pressing first. */
export function LedgerLines({ rows, today, withinDays, openId, onOpen }: LedgerLinesProps) {
  const axis = useMemo(() => axisOf(today, withinDays), [today, withinDays]);
  const all = useMemo(() => standingRows(rows, today), [rows, today]);
  return (
    <div className="px-4.5 pb-6 max-narrow:px-2.5">
      <div className={cx(COLUMNS, 'sticky top-0 z-1 bg-ground pt-3 max-narrow:hidden')} aria-hidden="true">
        <span className="max-narrow:hidden" />
        <Months axis={axis} />
      </div>
      {LEDGER_GROUPS.map((group) => {
        const here = all.filter(({ standing }) => standing.group === group);
        if (here.length === 0) return null;
        return (
          <section key={group} aria-labelledby={`ledger-${group}`}>
            <h2
              id={`ledger-${group}`}
              className="flex items-baseline justify-between border-b-2 border-ink pt-3.5 pb-1.25 text-lg"
            >
              {LEDGER_GROUP_WORDS[group]}{' '}
              <span className="font-mono text-sm font-normal text-soft">{here.length}</span>
            </h2>
            <ul onKeyDown={walk}>
              {here.map((one) => (
                <Line
                  key={one.row.asset.id}
                  {...one}
                  axis={axis}
                  isOpen={one.row.asset.id === openId}
                  onOpen={onOpen}
                />
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

/** Up and down lead from line to line, across the groups. */
function walk(event: KeyboardEvent<HTMLElement>): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
  if (step === 0) return;
  const lines = [...document.querySelectorAll<HTMLElement>('[data-ledger-line]')];
  const next = lines[lines.findIndex((line) => line.matches(':focus')) + step];
  if (!next) return;
  event.preventDefault();
  next.focus();
}

function Months({ axis }: { readonly axis: Axis }) {
  return (
    <div className="relative h-6 border-b border-ink">
      {axis.months.map(({ at, says }) => (
        <span
          key={at}
          className="absolute bottom-0 h-2 border-l border-ink font-mono text-2xs text-soft"
          style={{ left: `${at}%` }}
        >
          <span className="absolute bottom-0.5 left-1.25 whitespace-nowrap">{says}</span>
        </span>
      ))}
    </div>
  );
}

interface LineProps extends StandingRow {
  readonly axis: Axis;
  readonly isOpen: boolean;
  readonly onOpen: (id: string) => void;
}

function Line({ row: { asset, pages }, standing: { group, mark }, axis, isOpen, onOpen }: LineProps) {
  const isDue = group === 'settle';
  const { label } = asset;
  const last = lastDayOf(label.terms);
  const span = spanOn(axis, label.terms.begins || asset.createdAt.slice(0, 10), last);
  return (
    <li className={cx('relative border-b border-line', isOpen && 'bg-panel inset-shadow-none')}>
      {isOpen ? <span className="absolute inset-y-0 -left-4.5 w-1 bg-measure max-narrow:-left-2.5" /> : null}
      <button
        type="button"
        data-ledger-line
        aria-current={isOpen}
        className={cx(COLUMNS, 'w-full py-2 text-left')}
        onClick={() => onOpen(asset.id)}
      >
        <span className="flex min-w-0 gap-2.5">
          <img className="h-11 w-16 shrink-0 bg-panel object-cover" src={asset.thumb} alt="" loading="lazy" />
          <span className="min-w-0">
            <strong className="block truncate">{label.title || asset.stem}</strong>
            <span className="block truncate text-sm text-soft">{sayDeal(asset)}</span>
            <span className="block truncate text-sm text-soft">{sayStands(pages)}</span>
          </span>
        </span>
        <span className="relative block min-h-11 max-narrow:min-h-0">
          <span
            className="absolute -inset-y-2 w-px bg-action max-narrow:hidden"
            style={{ left: `${axis.today}%` }}
          />
          <span
            className={cx(
              'absolute top-0 pl-2.25 max-narrow:static max-narrow:pl-0',
              isDue && 'font-semibold text-due',
            )}
            style={{ left: `${axis.today}%` }}
          >
            {sayLedgerMark(mark)}
          </span>
          <TermLine span={span} isDue={isDue} />
        </span>
      </button>
    </li>
  );
}

/** A term as a dimension line: ticks where it begins and ends, dashed where no end is in sight. */
function TermLine({ span, isDue }: { readonly span: Span; readonly isDue: boolean }) {
  const [line, tick] = isDue ? ['border-measure', 'bg-measure'] : ['border-ink', 'bg-ink'];
  return (
    <span
      className="absolute bottom-1 h-2.5 max-narrow:hidden"
      style={{ left: `${span.left}%`, width: `${span.width}%` }}
    >
      <span className={cx('absolute inset-x-0 top-1/2 border-t', line, !span.ends && 'border-dashed')} />
      {span.begins ? <span className={cx('absolute inset-y-0 left-0 w-px', tick)} /> : null}
      {span.ends ? <span className={cx('absolute inset-y-0 right-0 w-px', tick)} /> : null}
    </span>
  );
}
