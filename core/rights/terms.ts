import * as v from 'valibot';
import { IdSchema } from '../page/id.ts';
import { RegionsSchema } from './regions.ts';

/** The ways of publishing that agreements tell apart. */
export const AGREED_USES = ['web', 'newsletter', 'social', 'print', 'advertising'] as const;
export type AgreedUse = (typeof AGREED_USES)[number];

/** What the people shown said to being shown (`unsaid`: nobody has looked yet). */
export const CONSENTS = ['unsaid', 'not-needed', 'given', 'missing', 'withdrawn'] as const;
export type Consent = (typeof CONSENTS)[number];

/** A day of the calendar (ISO 8601, YYYY-MM-DD). */
export const RealDaySchema = v.pipe(
  v.string(),
  v.trim(),
  v.isoDate('A date is written as 2026-03-12.'),
  v.check(isDay, 'There is no such day.'),
);

/** The same, or the empty text for none. */
export const DaySchema = v.union([v.literal(''), RealDaySchema]);

/** Whether it stands in the calendar: 30 February does not, though it is written as a date is. */
function isDay(text: string): boolean {
  const at = Date.parse(text);
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(text);
}

const price = v.strictObject({
  amount: v.pipe(v.number(), v.minValue(0), v.maxValue(10_000_000, 'At most 10,000,000 fits here.')),
  currency: v.pipe(v.string(), v.regex(/^[A-Z]{3}$/, 'A currency is written by its three letters, as GBP.')),
});

const decidedBy = { by: v.pipe(v.string(), v.maxLength(100)), personId: v.pipe(v.string(), v.maxLength(36)) };

/**
 * What is done with a piece that stands on pages once its last day is over, decided beforehand: nothing was said; it is taken
 * off; its term is renewed at the agency, on the last day itself, so that it has no gap; or another piece of the shelf takes its place. `by` is the name of whoever decided so, `personId` the person in whose
 * name it is done then.
 */
const AfterwardsSchema = v.variant('do', [
  v.strictObject({ do: v.literal('unsaid') }),
  v.strictObject({ do: v.literal('take-off'), ...decidedBy }),
  v.strictObject({
    do: v.literal('renew'),
    /** The agency's offer, and what it cost when that was decided, in the smallest unit: dearer than that, it is not renewed. */
    offer: v.pipe(v.string(), v.minLength(1), v.maxLength(100)),
    amount: v.pipe(v.number(), v.integer(), v.minValue(0)),
    ...decidedBy,
  }),
  v.strictObject({ do: v.literal('replace'), piece: IdSchema, ...decidedBy }),
]);
export type Afterwards = v.InferOutput<typeof AfterwardsSchema>;

/** Who may see a piece, the widest first. */
export const SEEN_BY = ['readers', 'house', 'group'] as const;
/** Who may use a piece on pages. */
export const USABLE_BY = ['everybody', 'page', 'rights-keeper'] as const;

/** As many as are named one by one. */
const MOST_SEEING = 60;

/**
 * Who may see a piece: readers, so that it may go out; the house alone; or of the house only some people (their IDs), besides
 * those who decide on rights and whoever brought it in.
 */
const SeenBySchema = v.variant('who', [
  v.strictObject({ who: v.literal('readers') }),
  v.strictObject({ who: v.literal('house') }),
  v.strictObject({
    who: v.literal('group'),
    people: v.pipe(
      v.array(v.pipe(v.string(), v.minLength(1), v.maxLength(36))),
      v.maxLength(MOST_SEEING, `At most ${MOST_SEEING} people are named one by one.`),
    ),
  }),
]);
export type SeenBy = v.InferOutput<typeof SeenBySchema>;

/** Who may use a piece on pages: everybody; everybody, on one page alone; or only whom the rights keeper allows it. */
const UsableBySchema = v.variant('who', [
  v.strictObject({ who: v.literal('everybody') }),
  v.strictObject({ who: v.literal('page'), page: IdSchema }),
  v.strictObject({ who: v.literal('rights-keeper') }),
]);
export type UsableBy = v.InferOutput<typeof UsableBySchema>;

/**
 * What was agreed for one piece, besides what its licence says. Empty texts, empty lists and null are "not said", and restrict
 * nothing. `begins`, `ends`, `shownFrom` and `shownUntil` are days that are themselves included; the first two are of the
 * agreement, the others when the house wants it shown. `agreement` and `consentForm` are documents of the shelf.
 */
export const TermsSchema = v.pipe(
  v.strictObject({
    begins: DaySchema,
    ends: DaySchema,
    territory: RegionsSchema,
    uses: v.pipe(v.array(v.picklist(AGREED_USES)), v.maxLength(AGREED_USES.length)),
    copies: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1_000_000_000))),
    price: v.nullable(price),
    agreed: v.pipe(v.string(), v.trim(), v.maxLength(2000, 'At most 2,000 letters fit here.')),
    agreement: v.nullable(IdSchema),
    consent: v.picklist(CONSENTS),
    consentForm: v.nullable(IdSchema),
    shownFrom: DaySchema,
    shownUntil: DaySchema,
    seenBy: SeenBySchema,
    usableBy: UsableBySchema,
    afterwards: AfterwardsSchema,
  }),
  v.forward(
    v.partialCheck(
      [['begins'], ['ends']],
      ({ begins, ends }) => isInOrder(begins, ends),
      'It ends before it begins.',
    ),
    ['ends'],
  ),
  v.forward(
    v.partialCheck(
      [['shownFrom'], ['shownUntil']],
      ({ shownFrom, shownUntil }) => isInOrder(shownFrom, shownUntil),
      'It ends before it begins.',
    ),
    ['shownUntil'],
  ),
);
export type Terms = v.InferOutput<typeof TermsSchema>;

/** Whether the last day is not before the first, where both are said. */
export const isInOrder = (first: string, last: string): boolean =>
  first === '' || last === '' || first <= last;

export const NO_TERMS: Terms = {
  begins: '',
  ends: '',
  territory: [],
  uses: [],
  copies: null,
  price: null,
  agreed: '',
  agreement: null,
  consent: 'unsaid',
  consentForm: null,
  shownFrom: '',
  shownUntil: '',
  seenBy: { who: 'readers' },
  usableBy: { who: 'everybody' },
  afterwards: { do: 'unsaid' },
};

/** What a recorded decision can allow that the licence, the statement or the terms by themselves do not. */
const DECIDABLE = ['publish', 'commercial', 'changes', 'territory', 'use'] as const;
export type Decidable = (typeof DECIDABLE)[number];

/**
 * A decision of the rights keeper: what is allowed all the same, on which target (the empty text: on each), by whom, on which
 * day, why, and the document that it rests on.
 */
export const DecisionSchema = v.strictObject({
  about: v.picklist(DECIDABLE),
  target: v.pipe(v.string(), v.trim(), v.maxLength(60)),
  by: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(100)),
  on: v.pipe(v.string(), v.isoDate()),
  why: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say why.'), v.maxLength(1000)),
  document: v.nullable(IdSchema),
});
export type Decision = v.InferOutput<typeof DecisionSchema>;

/**
 * The calendar day of a moment in a time zone (IANA name), as YYYY-MM-DD. A term that ends on a day ends with it there, whatever
 * day it is elsewhere.
 */
export function dayIn(timeZone: string, moment: Date): string {
  const known = daysTold.get(timeZone);
  const at = moment.getTime();
  if (known?.at === at) return known.day;
  // Swedish writes dates as ISO 8601 does. Kept, since making one takes longer than a whole judgement.
  const format = known?.format ?? new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' });
  const day = format.format(moment);
  daysTold.set(timeZone, { format, at, day });
  return day;
}

/** What was told last in each time zone: every use on a page is judged at the very same moment. */
const daysTold = new Map<
  string,
  { readonly format: Intl.DateTimeFormat; readonly at: number; readonly day: string }
>();

/** A time zone that dates can be told in (IANA name, as Europe/London). */
export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en-GB', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** The last day on which a piece may be used by its terms (YYYY-MM-DD, itself included); null where no end is known. */
export function lastDayOf({ ends, shownUntil }: Pick<Terms, 'ends' | 'shownUntil'>): string | null {
  const [soonest] = [ends, shownUntil].filter((day) => day !== '').sort();
  return soonest ?? null;
}
