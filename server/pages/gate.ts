import type { Person } from '#api/people.ts';
import { SENDER_WORDS } from '#api/people.ts';
import { maySend } from '#core/deliver/sending.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { Finding } from '#core/proof/finding.ts';
import { sayFinding } from '#core/proof/say.ts';
import { HttpProblem } from '../problem.ts';
import { proofOf } from './proof.ts';
import type { WholePage } from './store.ts';

/** What stops a page from going out. Every way out asks here: its code, its ZIP, its export. */
export function whatStops(whole: WholePage, now = new Date()): readonly Finding[] {
  return proofOf(whole, now).filter(({ severity }) => severity === 'stops');
}

/**
 * Refuses a page with findings that stop sending, and whoever may not send pages of its target. Asked when the work is ordered and
 * again when it is done, then by the house.
 */
export function assertMayGoOut(whole: WholePage, by: Pick<Person, 'role'> | 'house'): void {
  if (by !== 'house') assertMaySend(whole.rules, by);
  const stops = whatStops(whole);
  if (stops.length > 0)
    throw new HttpProblem(
      409,
      `This page cannot go out yet: ${sayStops(stops)}. The proof shows what mends it.`,
      {
        stops: stops.map((stop) => ({ ...stop, ...sayFinding(stop) })),
      },
    );
}

/** Refuses whoever may not send pages of a target, take them down, or plan either. */
export function assertMaySend({ name, sending }: HouseRules, { role }: Pick<Person, 'role'>): void {
  if (maySend(sending.senders, role)) return;
  throw new HttpProblem(
    403,
    `Pages of ${name} are sent by ${SENDER_WORDS[sending.senders]}. Nothing was changed. Ask one of them.`,
  );
}

function sayStops(stops: readonly Finding[]): string {
  const [first] = stops;
  const rest = stops.length > 1 ? ` and ${stops.length - 1} more` : '';
  return `${first ? sayFinding(first).sentence.replace(/\.$/, '') : ''}${rest}`;
}

/** Code of a page that cannot go out yet, marked as such at its head, for whoever looks at it knowingly. */
export function markedUnfinished(code: string, stops: readonly Finding[]): string {
  const faults = stops
    .map((stop) => `  - ${sayFinding(stop).sentence.replace(/-{2,}|[<>]/g, ' ')}`)
    .join('\n');
  return `<!-- UNFINISHED: this page is not to go out yet.\n${faults}\n-->\n${code}`;
}
