import * as v from 'valibot';
import { AltSchema } from '#core/rights/label.ts';
import { LanguageTagSchema } from '#core/words/language-tag.ts';
import { AssetSchema } from './assets.ts';

/** Which pieces are gone through: of pages that are due within a week, of any page, of one page, of a folder, or of the whole shelf. */
const WORDING_PLACES = ['due', 'pages', 'page', 'folder', 'shelf'] as const;

export const WordingQuerySchema = v.strictObject({
  place: v.optional(v.picklist(WORDING_PLACES)),
  page: v.optional(v.pipe(v.string(), v.maxLength(64))),
  folder: v.optional(v.pipe(v.string(), v.maxLength(500))),
  /** Also those that have words already. */
  all: v.optional(v.picklist(['yes', 'no'])),
  language: v.optional(v.union([v.literal(''), LanguageTagSchema])),
});
export type WordingQuery = v.InferInput<typeof WordingQuerySchema>;

const AltTextSchema = v.object({
  alt: AltSchema,
  extendedDescription: v.pipe(v.string(), v.trim(), v.maxLength(5000)),
});

/** Words that a contributor proposes for somebody else's piece, until an editor takes them or does not. */
const ProposalSchema = v.object({
  id: v.string(),
  by: v.string(),
  at: v.string(),
  ...AltTextSchema.entries,
});
export type Proposal = v.InferOutput<typeof ProposalSchema>;

/** Where a piece is heard first: on which page, between which words, and whether pressing it leads somewhere. */
const PlaceSchema = v.object({
  pageId: v.string(),
  title: v.string(),
  standing: v.string(),
  before: v.string(),
  caption: v.string(),
  credit: v.string(),
  after: v.string(),
  leadsTo: v.string(),
});

const WordingItemSchema = v.object({
  asset: AssetSchema,
  place: v.nullable(PlaceSchema),
  proposal: v.nullable(ProposalSchema),
});
export type WordingItem = v.InferOutput<typeof WordingItemSchema>;

/** The pieces of a wording round, in the order in which they are heard; `more` where there are more than are gone through at once. */
export const WordingSchema = v.object({ items: v.array(WordingItemSchema), more: v.boolean() });

export const ProposeSchema = v.strictObject(AltTextSchema.entries);
