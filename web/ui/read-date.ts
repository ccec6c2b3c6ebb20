import { format, isValid, parse } from 'date-fns';

/** As dates are typed here, the day before the month as in British English; ISO 8601 first, which cannot be mistaken. */
const WAYS = [
  'yyyy-MM-dd',
  'd MMMM yyyy',
  'd MMM yyyy',
  'd/M/yyyy',
  'd.M.yyyy',
  'd-M-yyyy',
  'd MMMM',
  'd MMM',
  'd/M',
];

export const isDate = (text: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(text);

export const DATE_FAULT = 'A date is written as 12 March 2026, or as 2026-03-12.';

/**
 * The date that was typed, as YYYY-MM-DD; null for what is none. A day without a year is of the year of `today`.
 */
export function readDate(text: string, today: Date): string | null {
  const typed = text.trim().replace(/\s+/g, ' ').replace(/,/g, '');
  for (const way of WAYS) {
    const date = parse(typed, way, today);
    if (isValid(date) && date.getFullYear() >= 1000) return format(date, 'yyyy-MM-dd');
  }
  return null;
}
