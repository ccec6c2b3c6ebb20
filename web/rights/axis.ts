import {
  addDays,
  addMonths,
  differenceInCalendarDays,
  format,
  getMonth,
  parseISO,
  startOfMonth,
} from 'date-fns';

/** A stretch of days on which terms are drawn, as a dimension line measures length. Days are written as 2026-03-12. */
export interface Axis {
  readonly from: Date;
  readonly days: number;
  readonly months: readonly { readonly at: number; readonly says: string }[];
  /** Where today stands, in percent of the whole. */
  readonly today: number;
}

const MOST_MONTH_NAMES = 8;

/** From the month before today to a little after the last day that is asked about. */
export function axisOf(today: string, withinDays: number): Axis {
  const now = parseISO(today);
  const from = startOfMonth(addMonths(now, -1));
  const to = startOfMonth(addMonths(addDays(now, withinDays), 2));
  const days = differenceInCalendarDays(to, from);
  const starts: Date[] = [];
  for (let month = from; month < to; month = addMonths(month, 1)) starts.push(month);
  const every = Math.ceil(starts.length / MOST_MONTH_NAMES);
  return {
    from,
    days,
    months: starts.flatMap((month, at) =>
      at % every === 0 ? [{ at: share(month, from, days), says: sayMonth(month, at) }] : [],
    ),
    today: share(now, from, days),
  };
}

const share = (day: Date, from: Date, days: number) => (100 * differenceInCalendarDays(day, from)) / days;
const sayMonth = (month: Date, at: number) =>
  format(month, at > 0 && getMonth(month) === 0 ? 'MMM yyyy' : 'MMM');

/** A term on the axis, in percent; without an end in sight it runs to the edge. */
export interface Span {
  readonly left: number;
  readonly width: number;
  readonly begins: boolean;
  readonly ends: boolean;
}

/** Where a term stands on an axis: from a day, to a last day that is itself included, or to no end that is known. */
export function spanOn({ from, days }: Axis, first: string, last: string | null): Span {
  const start = share(parseISO(first), from, days);
  const end = last === null ? Number.POSITIVE_INFINITY : share(addDays(parseISO(last), 1), from, days);
  const left = Math.min(Math.max(start, 0), 100);
  return {
    left,
    width: Math.max(Math.min(end, 100) - left, 0),
    begins: start >= 0 && start <= 100,
    ends: end >= 0 && end <= 100,
  };
}
