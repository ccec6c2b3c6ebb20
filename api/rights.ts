import * as v from 'valibot';
import { PlacementSchema } from '#core/page/blocks/placement/schema.ts';
import { IdSchema } from '#core/page/id.ts';
import { DIFFERENCE_ABOUT, DIFFERENCE_BY } from '#core/rights/differences.ts';
import { HouseLicenceSchema, LicenceKeySchema } from '#core/rights/house-licence.ts';
import { LabelPatchSchema, LabelSchema } from '#core/rights/label.ts';
import { AssetSchema } from './assets.ts';

/** What the ledger is asked for: what waits for somebody, what ends, what lacks something, or all of it. */
const LEDGER_MATTERS = [
  'waits',
  'ends',
  'claimed',
  'consent',
  'comp',
  'not-cleared',
  'owes-credit',
  'all',
] as const;
const LEDGER_PLACES = ['anywhere', 'pages', 'out', 'nowhere'] as const;
const LEDGER_ORDERS = ['soonest', 'name', 'newest'] as const;
/** Within so many days from today a last day counts as near. */
const LEDGER_WITHIN = ['30', '90', '183', '366', 'any'] as const;

const words = v.optional(v.pipe(v.string(), v.maxLength(200)));

/** The sentence of the Rights area as query parameters. */
export const LedgerQuerySchema = v.strictObject({
  matter: v.optional(v.picklist(LEDGER_MATTERS)),
  within: v.optional(v.picklist(LEDGER_WITHIN)),
  place: v.optional(v.picklist(LEDGER_PLACES)),
  maker: words,
  source: words,
  licence: v.optional(v.union([v.literal('any'), LicenceKeySchema])),
  order: v.optional(v.picklist(LEDGER_ORDERS)),
  cursor: v.optional(v.pipe(v.string(), v.maxLength(400))),
});
export type LedgerQuery = v.InferInput<typeof LedgerQuerySchema>;

/** A piece of the ledger with the pages that it stands on; `isOut` for those that went out. */
const LedgerRowSchema = v.object({
  asset: AssetSchema,
  pages: v.array(v.object({ id: v.string(), title: v.string(), isOut: v.boolean() })),
});
export type LedgerRow = v.InferOutput<typeof LedgerRowSchema>;

const differenceEntries = {
  by: v.picklist(DIFFERENCE_BY),
  about: v.picklist(DIFFERENCE_ABOUT),
  says: v.pipe(v.string(), v.maxLength(2000)),
};

/** What a file or a source says otherwise than the label, and what the label would say then. */
const SaidDifferenceSchema = v.object({
  ...differenceEntries,
  label: v.string(),
  patch: LabelPatchSchema,
});
export type SaidDifference = v.InferOutput<typeof SaidDifferenceSchema>;
export const SaidDifferencesSchema = v.array(SaidDifferenceSchema);

/** The label is right over what somebody else says (`isKept`), or that is open again. */
export const KeepLabelSchema = v.strictObject({ ...differenceEntries, isKept: v.boolean() });

/** A licence of the house as it is kept. */
export const KeptLicenceSchema = v.object({ licence: HouseLicenceSchema, version: v.number() });
export type KeptLicence = v.InferOutput<typeof KeptLicenceSchema>;

/** How many pieces answer a question. */
export const LedgerCountSchema = v.object({ found: v.number() });

export const LedgerSchema = v.object({
  rows: v.array(LedgerRowSchema),
  cursor: v.nullable(v.string()),
});

/** One use of a piece, judged as it stands today. `says` is the judgement in sentences. */
const JudgedUseSchema = v.object({
  pageId: v.string(),
  title: v.string(),
  target: v.string(),
  isOut: v.boolean(),
  verdict: v.picklist(['allowed', 'allowed-if', 'not-allowed']),
  says: v.string(),
  /** How it stands there, each time that it does. */
  placements: v.array(PlacementSchema),
});
export const JudgedUsesSchema = v.array(JudgedUseSchema);
export type JudgedUse = v.InferOutput<typeof JudgedUseSchema>;

/** What is used: what carries a licence (by its key), comes from a host (by its ID), or was brought in by somebody (by theirs). */
export const WhereUsedQuerySchema = v.strictObject({
  of: v.picklist(['licence', 'host', 'person']),
  value: v.pipe(v.string(), v.minLength(1), v.maxLength(60)),
});
export type WhereUsedQuery = v.InferOutput<typeof WhereUsedQuerySchema>;

/** How many pieces of the shelf that are, and the pages that any of them stands on. */
export const WhereUsedSchema = v.object({
  pieces: v.number(),
  pages: v.array(
    v.object({
      id: v.string(),
      title: v.string(),
      target: v.string(),
      isOut: v.boolean(),
      pieces: v.number(),
    }),
  ),
});
export type WhereUsed = v.InferOutput<typeof WhereUsedSchema>;

/** What somebody said of a piece, or did with it: newest first. `fields` are those of its label that changed. */
const HistoryLineSchema = v.object({
  at: v.string(),
  who: v.string(),
  what: v.string(),
  fields: v.array(v.object({ field: v.string(), now: v.string() })),
});
export const HistorySchema = v.array(HistoryLineSchema);
export type HistoryLine = v.InferOutput<typeof HistoryLineSchema>;

/** Pieces that a ledger names, to see how they stand; what is not on the shelf is left out. */
export const LedgerLookupSchema = v.strictObject({
  ids: v.pipe(v.array(v.pipe(v.string(), v.maxLength(100))), v.maxLength(1000)),
  files: v.pipe(v.array(v.pipe(v.string(), v.maxLength(300))), v.maxLength(1000)),
});
const FoundSchema = v.object({
  id: v.string(),
  version: v.number(),
  file: v.string(),
  thumb: v.string(),
  label: v.object(LabelSchema.entries),
  drafted: v.array(v.string()),
});
export const LedgerFoundSchema = v.array(FoundSchema);
export type LedgerFound = v.InferOutput<typeof FoundSchema>;

/** Changes to the labels of many pieces, each on the version it was looked at; those that cannot be made leave the others alone. */
export const LedgerChangesSchema = v.strictObject({
  rows: v.pipe(
    v.array(
      v.strictObject({
        id: IdSchema,
        version: v.pipe(v.number(), v.integer(), v.minValue(1)),
        label: LabelPatchSchema,
        drafted: v.optional(v.array(v.string()), []),
      }),
    ),
    v.maxLength(100),
  ),
});
/** What became of each: its version from then on, or why it stays as it is. */
export const LedgerChangedSchema = v.array(
  v.object({ id: v.string(), version: v.nullable(v.number()), why: v.string() }),
);
