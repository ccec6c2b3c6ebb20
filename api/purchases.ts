import * as v from 'valibot';
import { IdSchema } from '#core/page/id.ts';
import { OfferSchema } from '#core/rights/offer.ts';
import { AssetSchema } from './assets.ts';
import type { ROLES } from './people.ts';

/**
 * Where a purchase is: ordered at the agency; paid for; its original on the shelf, waiting for somebody to compare it with the
 * comp; in the comp's place; or refused by the agency, so that nothing was paid.
 */
const PURCHASE_STATES = ['ordering', 'paid', 'to-compare', 'done', 'refused'] as const;
export type PurchaseState = (typeof PURCHASE_STATES)[number];

/** What an agency asks for the original of a comp, and whether it can be bought here at all. */
export const OffersSchema = v.object({
  compId: v.string(),
  agency: v.string(),
  offers: v.array(OfferSchema),
});
export type Offers = v.InferOutput<typeof OffersSchema>;

export const BuySchema = v.strictObject({
  compId: IdSchema,
  offer: v.pipe(v.string(), v.minLength(1), v.maxLength(100)),
  /** What it cost when it was looked at, in the smallest unit: dearer than that, it is not bought. */
  amount: v.pipe(v.number(), v.integer(), v.minValue(0)),
  licensedTo: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, 'Say who licenses it.'),
    v.maxLength(300, 'At most 300 letters fit here.'),
  ),
});
export type Buy = v.InferOutput<typeof BuySchema>;

/** A purchase as it stands. `halted`: it waits until somebody lets it go on. `words` say where it is, or why it halted. */
export const PurchaseSchema = v.object({
  id: v.string(),
  state: v.picklist(PURCHASE_STATES),
  halted: v.boolean(),
  words: v.string(),
  /** The comp; the piece itself where its licence is bought anew (`isRenewal`). */
  comp: AssetSchema,
  isRenewal: v.boolean(),
  original: v.nullable(AssetSchema),
  offer: OfferSchema,
  licensedTo: v.string(),
  receipt: v.string(),
  by: v.string(),
  at: v.string(),
  replacedAt: v.nullable(v.string()),
  pages: v.number(),
});
export type Purchase = v.InferOutput<typeof PurchaseSchema>;

const limit = v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1_000_000_000)));

/** How much each role may spend in a month, in the smallest unit of each currency; null for any amount. */
export const SpendingLimitsSchema = v.strictObject({
  editor: limit,
  'rights-keeper': limit,
  'site-owner': limit,
  contributor: limit,
} satisfies Record<(typeof ROLES)[number], unknown>);
export type SpendingLimits = v.InferOutput<typeof SpendingLimitsSchema>;

/** The limits, what one may spend oneself in a month, and what one has spent of it by currency. */
export const SpendingSchema = v.object({
  limits: SpendingLimitsSchema,
  mine: limit,
  spent: v.record(v.string(), v.number()),
});
export type Spending = v.InferOutput<typeof SpendingSchema>;
