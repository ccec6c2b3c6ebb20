import { addDays, addYears, formatISO, parseISO, subDays } from 'date-fns';
import * as v from 'valibot';
import type { Label } from './label.ts';
import { RegionsSchema, sayRegions } from './regions.ts';
import { sayUses } from './say-judgement.ts';
import { AGREED_USES, NO_TERMS, type Terms } from './terms.ts';

const CurrencySchema = v.pipe(
  v.string(),
  v.regex(/^[A-Z]{3}$/, 'A currency is written by its three letters.'),
);

/**
 * What an agency offers for one picture: its price in the smallest unit of the currency, and what one may do for it. No years:
 * for ever; no uses: any; no territory: everywhere.
 */
export const OfferSchema = v.strictObject({
  id: v.pipe(v.string(), v.minLength(1), v.maxLength(100)),
  amount: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1_000_000_000)),
  currency: CurrencySchema,
  uses: v.pipe(v.array(v.picklist(AGREED_USES)), v.maxLength(AGREED_USES.length)),
  territory: RegionsSchema,
  years: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100))),
  copies: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1_000_000_000))),
});
export type Offer = v.InferOutput<typeof OfferSchema>;

/** "48.00 EUR". Currencies without a smaller unit (ISO 4217) are written whole. */
export function sayAmount(amount: number, currency: string): string {
  const digits = digitsOf(currency);
  return `${(amount / 10 ** digits).toFixed(digits)} ${currency}`;
}

const digitsOf = (currency: string): number =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ??
  2;

/** "the web, in Europe, for 2 years". */
export function sayOffer({ uses, territory, years, copies }: Offer): string {
  return [
    uses.length === 0 ? 'any use' : sayUses(uses),
    territory.length === 0 ? 'everywhere' : `in ${sayRegions(territory)}`,
    years === null ? 'without an end' : years === 1 ? 'for 1 year' : `for ${years} years`,
    ...(copies === null ? [] : [`up to ${copies.toLocaleString('en-GB')} copies`]),
  ].join(', ');
}

/** The terms of a picture that was bought on a day (YYYY-MM-DD): first and last day are both of them, so a year ends the day before. */
function termsOfOffer(offer: Offer, day: string): Terms {
  const { amount, currency, uses, territory, years, copies } = offer;
  const ends =
    years === null ? '' : formatISO(subDays(addYears(parseISO(day), years), 1), { representation: 'date' });
  const price = { amount: amount / 10 ** digitsOf(currency), currency };
  return { ...NO_TERMS, begins: day, ends, territory, uses, copies, price };
}

/**
 * The terms of a picture whose licence is bought anew on a day: they go on where they end, or begin on that day where they are over
 * already. What was agreed by hand and who is shown stay said; what happens at the end is decided anew.
 */
export function renewedTerms(terms: Terms, offer: Offer, day: string): Terms {
  const isOver = terms.ends !== '' && terms.ends < day;
  const next =
    isOver || terms.ends === ''
      ? day
      : formatISO(addDays(parseISO(terms.ends), 1), { representation: 'date' });
  const { ends, territory, uses, copies, price } = termsOfOffer(offer, next);
  const begins = isOver || terms.begins === '' ? next : terms.begins;
  return { ...terms, begins, ends, territory, uses, copies, price, afterwards: NO_TERMS.afterwards };
}

/** What a bought picture is bought with: the offer, the day, and in whose name. */
export interface Bought {
  readonly offer: Offer;
  readonly day: string;
  readonly licensedTo: string;
}

/**
 * The label of an original that was bought for a comp: all that people said of the comp, for it is the same picture, and the
 * agency licence with its terms.
 */
export function originalLabel(comp: Label, { offer, day, licensedTo }: Bought): Label {
  const { consent, consentForm, shownFrom, shownUntil } = comp.terms;
  return {
    ...comp,
    licence: 'agency',
    licenceAddress: '',
    licensedTo,
    decisions: [],
    terms: { ...termsOfOffer(offer, day), consent, consentForm, shownFrom, shownUntil },
  };
}
