import { format, isPast, isToday, isTomorrow, isYesterday, parseISO } from 'date-fns';

/** "14:02" today, "yesterday 09:10", else "12 March". */
export function sayTime(iso: string): string {
  const date = parseISO(iso);
  if (isToday(date)) return format(date, 'HH:mm');
  if (isYesterday(date)) return `yesterday ${format(date, 'HH:mm')}`;
  return format(date, 'd MMMM');
}

/** "12 March 2026", or nothing for a date that is not known. */
/** A day that is written as 2026-11-30, short, as under a chart. */
export const sayDay = (day: string): string => format(parseISO(day), 'd MMM');

export function sayDate(iso: string): string {
  return iso === '' ? '' : format(parseISO(iso), 'd MMMM yyyy');
}

/** When something is due, in words. */
export function sayDue(iso: string | null): string {
  if (!iso) return 'no date yet';
  const date = parseISO(iso);
  if (isToday(date)) return 'due today';
  if (isTomorrow(date)) return 'due tomorrow';
  return `due ${format(date, 'EEEE d MMMM')}`;
}

/** Whether something is due today or was due before. */
export function isPressing(iso: string): boolean {
  const date = parseISO(iso);
  return isToday(date) || isPast(date);
}
