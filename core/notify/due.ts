import type { Matter, MessageChoices, MessageWay } from './choices.ts';

const MINUTE_MILLIS = 60_000;
const HOUR_MILLIS = 60 * MINUTE_MILLIS;

/** What waits on the Desk comes and goes while somebody works on a page: only what stays this long is told. */
const SETTLES_MILLIS = 10 * MINUTE_MILLIS;

/** Before the first hour of most people's work. */
const MORNING_HOUR = 7;

/** When something that is new at `now` is told. */
export function dueAt(choices: MessageChoices, way: MessageWay, matter: Matter, now: Date): Date {
  const settled = matter === 'errand' ? new Date(now.getTime() + SETTLES_MILLIS) : now;
  return way === 'mail' && choices.mail.when === 'morning'
    ? nextMorning(choices.mail.zone, settled)
    : settled;
}

/**
 * The next moment after `now` at which it is seven o'clock in a time zone (IANA name). Found by going on a quarter of an hour
 * at a time, so that it holds where clocks are put forward or back: such a day has 23 or 25 hours, and no zone changes at seven.
 */
export function nextMorning(zone: string, now: Date): Date {
  const hourIn = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hour: 'numeric',
    minute: 'numeric',
    hourCycle: 'h23',
  });
  // Some zones are a quarter or half of an hour from the others.
  const step = HOUR_MILLIS / 4;
  const first = Math.floor(now.getTime() / step) * step + step;
  for (let at = first; at <= first + 26 * HOUR_MILLIS; at += step)
    if (hourIn.format(at) === `${String(MORNING_HOUR).padStart(2, '0')}:00`) return new Date(at);
  // A day that a zone leaves out altogether has no morning; the day after it has.
  return new Date(first + 26 * HOUR_MILLIS);
}

/**
 * How long until a message that was not taken is tried again, in milliseconds, after so many tries: a minute, five, half an
 * hour, two hours, then twice a day. Null once it was tried for some three days: mail hosts try for four to five (RFC 5321,
 * 4.5.4.1), and a person has looked at the Desk by then.
 */
export function waitAfter(tries: number): number | null {
  const minutes = [1, 5, 30, 120, 720, 720, 720, 720, 720][tries - 1];
  return minutes === undefined ? null : minutes * MINUTE_MILLIS;
}
