import * as v from 'valibot';
import { AltSchema } from '#core/rights/label.ts';

/** How far an inherited page is: it is being read, was read, comes in, is in, was taken back. */
const INHERITED_STATES = ['reading', 'read', 'coming', 'in', 'back'] as const;

export const MOST_ADDRESSES = 200;
/** A page that is pasted or handed in as a file, in letters. */
const MOST_HTML = 15_000_000;

const address = v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(2000));

/** Where inherited pages come from. */
export const NewInheritedSchema = v.strictObject({
  targetId: v.string(),
  from: v.variant('kind', [
    v.strictObject({
      kind: v.literal('addresses'),
      addresses: v.pipe(
        v.array(address),
        v.minLength(1, 'Give an address.'),
        v.maxLength(MOST_ADDRESSES, `At most ${MOST_ADDRESSES} pages are read at once.`),
      ),
    }),
    /** A sitemap (sitemaps.org), or a page whose links are those of the section. */
    v.strictObject({ kind: v.literal('section'), address }),
    v.strictObject({
      kind: v.literal('html'),
      html: v.pipe(v.string(), v.minLength(1, 'Paste the HTML of a page.'), v.maxLength(MOST_HTML)),
      name: v.pipe(v.string(), v.maxLength(300)),
      /** Where it stood, from where its addresses are read; empty where that is not known. */
      address: v.pipe(v.string(), v.trim(), v.maxLength(2000)),
    }),
  ]),
});
export type NewInherited = v.InferOutput<typeof NewInheritedSchema>;

/** A file that is handed in as the body itself, with what it is called. */
export const InheritedFileSchema = v.strictObject({
  targetId: v.string(),
  name: v.pipe(v.string(), v.minLength(1), v.maxLength(300)),
});

/** What is decided before a page comes in. */
export const BringInSchema = v.strictObject({
  /** Whether all is mended that can be safely. */
  mends: v.boolean(),
  /** Whether the pictures of which nobody says whose they are belong to the house. */
  isOurs: v.boolean(),
  /** Whether links that do not answer any more become words. */
  unlinksDead: v.boolean(),
  /** What the pictures that say nothing show, by the places of their uses; those that are not named are asked for later. */
  alts: v.optional(v.record(v.pipe(v.string(), v.regex(/^\d{1,4}$/)), AltSchema), {}),
});
export type BringInWish = v.InferOutput<typeof BringInSchema>;

export const BringInManySchema = v.strictObject({
  ids: v.pipe(v.array(v.string()), v.minLength(1), v.maxLength(MOST_ADDRESSES)),
  ...BringInSchema.entries,
});

/** One inherited page in a list. */
const InheritedLineSchema = v.object({
  id: v.string(),
  /** Its address, or the name of its file. */
  source: v.string(),
  title: v.string(),
  targetId: v.string(),
  targetName: v.string(),
  by: v.string(),
  at: v.string(),
  state: v.picklist(INHERITED_STATES),
  /** Sorts of faults, and how many of them ask somebody. */
  faults: v.number(),
  asks: v.number(),
  /** Why it could not be read or brought in. */
  words: v.string(),
  jobId: v.string(),
  pageId: v.nullable(v.string()),
});
export type InheritedLine = v.InferOutput<typeof InheritedLineSchema>;
export const InheritedListSchema = v.array(InheritedLineSchema);

const SaidFaultSchema = v.object({
  code: v.string(),
  sentence: v.string(),
  became: v.string(),
  outcome: v.picklist(['mended', 'asks']),
  /** The elements that it is about, by their places in the document. */
  spots: v.array(v.number()),
});
export type SaidFault = v.InferOutput<typeof SaidFaultSchema>;

/** An inherited page as it stood and as it would be written, with what is wrong with it. */
export const InheritedPageSchema = v.object({
  ...InheritedLineSchema.entries,
  address: v.nullable(v.string()),
  said: v.string(),
  list: v.array(SaidFaultSchema),
  left: v.array(v.object({ kind: v.string(), count: v.number(), examples: v.array(v.string()) })),
  /** Bytes of the page with its pictures as it loads there; null before it was read. */
  bytes: v.nullable(v.number()),
  pictures: v.number(),
  /** What can be decided: whose unknown pictures are, what becomes of dead links. */
  unknownLicences: v.number(),
  deadLinks: v.number(),
  /** Uses of pictures whose words somebody has to say: their places, what their files are called, how they look. */
  unworded: v.array(v.object({ use: v.number(), name: v.string(), look: v.nullable(v.string()) })),
  /** Addresses of pages that it is made of by frames, each to be brought in by itself. */
  framed: v.array(v.string()),
  /** Pages of its frames, each to be brought in by itself. */
  frames: v.object({ found: v.nullable(v.string()), written: v.nullable(v.string()) }),
  wishes: v.nullable(BringInSchema),
  /** Whether it can be taken back: it is in, and nobody has worked on it since. */
  mayBeTakenBack: v.boolean(),
});
export type InheritedPage = v.InferOutput<typeof InheritedPageSchema>;

/** The pages that are read now, in the order in which they were given. */
export const BegunSchema = v.object({
  ids: v.array(v.string()),
  /** What was given and is not read, each with the reason. */
  leftOut: v.array(v.string()),
});
