import { differenceInCalendarDays, parseISO } from 'date-fns';
import { termsOf } from './house-licence.ts';
import type { Label } from './label.ts';
import { sayDay } from './say-judgement.ts';
import { lastDayOf } from './terms.ts';

/** How pressing a piece is in the ledger of rights, the most pressing first. */
export const LEDGER_GROUPS = ['settle', 'look', 'by-itself', 'quiet'] as const;
export type LedgerGroup = (typeof LEDGER_GROUPS)[number];

export const LEDGER_GROUP_WORDS: Readonly<Record<LedgerGroup, string>> = {
  settle: 'Has to be settled',
  look: 'Asks for a look',
  'by-itself': 'Ends by itself, nothing has to be done',
  quiet: 'In order',
};

/** What a piece waits for, by its label alone. `days` from today to its last day, negative once that is over. */
export type LedgerMark =
  | { readonly code: 'consent'; readonly consent: 'missing' | 'withdrawn' }
  | { readonly code: 'comp' }
  | { readonly code: 'over' | 'ends'; readonly day: string; readonly days: number }
  | {
      readonly code: 'decided';
      readonly day: string;
      readonly days: number;
      readonly by: 'taken off' | 'replaced' | 'renewed';
    }
  | { readonly code: 'unused'; readonly day: string; readonly days: number }
  | { readonly code: 'not-cleared'; readonly licence: string }
  | { readonly code: 'claimed'; readonly licence: string }
  | { readonly code: 'in-order'; readonly licence: string };

export interface LedgerStanding {
  readonly group: LedgerGroup;
  readonly mark: LedgerMark;
}

/** A piece as the ledger looks at it: `pages` is on how many it stands. */
export interface LedgerPiece {
  readonly label: Label;
  readonly isLicenceClaimed: boolean;
  readonly pages: number;
}

/**
 * How a piece stands on a day (YYYY-MM-DD): the most pressing thing alone. What stands on no page can wait, and what was
 * decided beforehand is done by itself. Whether one use is allowed is `judge`'s to say.
 */
export function ledgerStanding(
  { label, isLicenceClaimed, pages }: LedgerPiece,
  today: string,
): LedgerStanding {
  const { terms, licence } = label;
  const { short, publish } = termsOf(label);
  const isUsed = pages > 0;
  if (isUsed && (terms.consent === 'missing' || terms.consent === 'withdrawn'))
    return { group: 'settle', mark: { code: 'consent', consent: terms.consent } };
  if (isUsed && licence === 'comp') return { group: 'settle', mark: { code: 'comp' } };
  const day = lastDayOf(terms);
  if (day !== null) return standingUntil(label, day, isUsed, today);
  if (isUsed && !publish && label.decisions.length === 0)
    return { group: 'look', mark: { code: 'not-cleared', licence: short } };
  if (isLicenceClaimed) return { group: 'look', mark: { code: 'claimed', licence: short } };
  return { group: 'quiet', mark: { code: 'in-order', licence: short } };
}

const DONE_BY = { 'take-off': 'taken off', replace: 'replaced', renew: 'renewed' } as const;

function standingUntil({ terms }: Label, day: string, isUsed: boolean, today: string): LedgerStanding {
  const days = differenceInCalendarDays(parseISO(day), parseISO(today));
  if (!isUsed) return { group: 'by-itself', mark: { code: 'unused', day, days } };
  if (terms.afterwards.do === 'unsaid')
    return { group: 'settle', mark: { code: days < 0 ? 'over' : 'ends', day, days } };
  const by = DONE_BY[terms.afterwards.do];
  return { group: 'by-itself', mark: { code: 'decided', day, days, by } };
}

/** A mark in a few words: "ends on 14 December 2026, in 16 days". */
export function sayLedgerMark(mark: LedgerMark): string {
  switch (mark.code) {
    case 'consent':
      return mark.consent === 'missing' ? 'a consent is missing' : 'a consent was withdrawn';
    case 'comp':
      return 'a comp: to be bought before its pages go out';
    case 'over':
      return `ended on ${sayDay(mark.day)}`;
    case 'ends':
      return `ends on ${sayDay(mark.day)}, ${sayDays(mark.days)}`;
    case 'decided':
      return `ends on ${sayDay(mark.day)}, and is ${mark.by} then`;
    case 'unused':
      return `${mark.days < 0 ? 'ended' : 'ends'} on ${sayDay(mark.day)}; no page needs it`;
    case 'not-cleared':
      return `not cleared: ${mark.licence}`;
    case 'claimed':
      return `${mark.licence} is only claimed`;
    case 'in-order':
      return mark.licence;
  }
}

function sayDays(days: number): string {
  if (days === 0) return 'today';
  return days === 1 ? 'tomorrow' : `in ${days} days`;
}
