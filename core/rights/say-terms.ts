import isEqual from 'fast-deep-equal';
import { sayRegions } from './regions.ts';
import { sayDay, sayUses } from './say-judgement.ts';
import { type Consent, NO_TERMS, type SeenBy, type Terms, type UsableBy } from './terms.ts';

export const CONSENT_WORDS: Readonly<Record<Consent, string>> = {
  unsaid: 'Nobody has said',
  'not-needed': 'None is needed',
  given: 'Given',
  missing: 'Missing',
  withdrawn: 'Withdrawn',
};

const CONSENT_SENTENCES: Readonly<Record<Consent, string>> = {
  unsaid: '',
  'not-needed': 'No consent is needed.',
  given: 'Those who are shown have consented.',
  missing: 'A consent is missing.',
  withdrawn: 'A consent was withdrawn.',
};

/** Whether anything was agreed or said besides the licence. */
export const hasTerms = ({ afterwards: _a, seenBy: _s, usableBy: _u, ...said }: Terms): boolean =>
  !isEqual({ ...NO_TERMS, ...said }, NO_TERMS);

/** Who may see and use it, in sentences; empty where readers may see and everybody may use it. */
export const sayAccess = ({ seenBy, usableBy }: Pick<Terms, 'seenBy' | 'usableBy'>): string =>
  [saySeenBy(seenBy), USABLE_SENTENCES[usableBy.who]].filter(Boolean).join(' ');

/** What was agreed, in sentences: "From 14 December 2025 until 14 December 2026, in Europe, for the web, for 48.00 GBP." */
export function sayTerms(terms: Terms): string {
  const { begins, ends, territory, uses, copies, price, shownFrom, shownUntil } = terms;
  const agreed = [
    sayDays(begins, ends),
    territory.length === 0 ? '' : `in ${sayRegions(territory)}`,
    uses.length === 0 ? '' : `for ${sayUses(uses)}`,
    copies === null ? '' : `up to ${copies.toLocaleString('en-GB')} copies`,
    price === null ? '' : `for ${sayPrice(price)}`,
  ].filter(Boolean);
  const shown = sayDays(shownFrom, shownUntil);
  return [
    agreed.length === 0 ? '' : `${capital(agreed.join(', '))}.`,
    terms.agreed,
    shown === '' ? '' : `To be shown ${shown}.`,
    CONSENT_SENTENCES[terms.consent],
  ]
    .filter(Boolean)
    .join(' ');
}

export const SEEN_BY_WORDS: Readonly<Record<SeenBy['who'], string>> = {
  readers: 'Readers',
  house: 'The house alone',
  group: 'Only these people of the house',
};

export const USABLE_BY_WORDS: Readonly<Record<UsableBy['who'], string>> = {
  everybody: 'Everybody who makes pages',
  page: 'One page alone',
  'rights-keeper': 'Whom the rights keeper allows it',
};

const USABLE_SENTENCES: Readonly<Record<UsableBy['who'], string>> = {
  everybody: '',
  page: 'Kept for one page.',
  'rights-keeper': 'The rights keeper is asked before each use.',
};

function saySeenBy(seenBy: SeenBy): string {
  if (seenBy.who === 'readers') return '';
  if (seenBy.who === 'house') return 'Seen by the house alone.';
  const { length } = seenBy.people;
  const named = length === 0 ? '' : `${length === 1 ? 'one person' : `${length} people`} of the house, `;
  return `Seen by ${named}whoever brought it in, and the rights keeper.`;
}

const sayDays = (first: string, last: string): string =>
  [first && `from ${sayDay(first)}`, last && `until ${sayDay(last)}`].filter(Boolean).join(' ');

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** "48.00 GBP": an amount in the smallest way that says which currency. */
export const sayPrice = ({ amount, currency }: NonNullable<Terms['price']>): string =>
  `${amount.toFixed(2)} ${currency}`;

/** A price as people write it, "48 GBP" or "48.00 GBP"; null for none, undefined for what is no price. */
export function readPrice(text: string): Terms['price'] | undefined {
  if (text.trim() === '') return null;
  const [, amount, currency] = /^\s*(\d{1,8}(?:[.,]\d{1,2})?)\s*([a-z]{3})\s*$/i.exec(text) ?? [];
  return amount && currency
    ? { amount: Number(amount.replace(',', '.')), currency: currency.toUpperCase() }
    : undefined;
}
