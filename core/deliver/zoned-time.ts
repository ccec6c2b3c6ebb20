/** A day and a time as clocks show them, without a time zone (ISO 8601): 2026-03-29T06:30. */
const LOCAL = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/;
const DAY_MILLIS = 24 * 60 * 60 * 1000;

/**
 * The moments at which the clocks of a time zone (IANA name) show a day and time: one; none in an hour that they pass over in
 * spring, or where there is no such day; two, the earlier first, in the hour that they repeat in autumn.
 */
export function momentsOf(local: string, timeZone: string): readonly Date[] {
  const asUtc = LOCAL.test(local) ? Date.parse(`${local}Z`) : Number.NaN;
  if (Number.isNaN(asUtc)) return [];
  // Whatever the clocks do that night, they show one of the two times of the days about it.
  const offsets = [asUtc - DAY_MILLIS, asUtc + DAY_MILLIS].map((at) => offsetAt(timeZone, at));
  const moments = [...new Set(offsets)].map((offset) => asUtc - offset);
  return moments
    .filter((at) => localIn(timeZone, new Date(at)) === local)
    .sort((one, other) => one - other)
    .map((at) => new Date(at));
}

/** How far the clocks there are before UTC at a moment, in milliseconds. */
function offsetAt(timeZone: string, at: number): number {
  const shown = Date.parse(`${localIn(timeZone, new Date(at))}Z`);
  return shown - Math.floor(at / 60_000) * 60_000;
}

/** What the clocks of a time zone show at a moment: 2026-03-29T06:30. */
export function localIn(timeZone: string, moment: Date): string {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  }).formatToParts(moment);
  const part = (type: Intl.DateTimeFormatPartTypes) => parts.find((one) => one.type === type)?.value ?? '';
  return `${part('year').padStart(4, '0')}-${part('month')}-${part('day')}T${part('hour')}:${part('minute')}`;
}
