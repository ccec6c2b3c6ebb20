import * as v from 'valibot';
import { StatementsSchema } from '#core/gather/statement.ts';
import { AssetSchema, SidecarTextSchema } from './assets.ts';

/** Where pictures are gathered from, besides the own machine and the shelf. */
const SOURCE_IDS = ['commonfield', 'brackwater', 'wayside', 'loftdrive', 'web'] as const;
export type SourceId = (typeof SOURCE_IDS)[number];

const size = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(200_000));
const address = v.pipe(v.string(), v.maxLength(2000));

/** A picture that a source has, as far as it is known before it is taken. Sizes in px, 0 where they are not said. */
export const FoundPictureSchema = v.object({
  source: v.picklist(SOURCE_IDS),
  /** Names the picture within its source, for ever. */
  key: v.pipe(v.string(), v.maxLength(300)),
  /** Changes when the source's file changes; empty where the source does not say. */
  stamp: v.pipe(v.string(), v.maxLength(200)),
  fileName: v.pipe(v.string(), v.maxLength(300)),
  /** Of the file itself. */
  address,
  preview: address,
  /** Of a page that shows or sells it, or empty. */
  pageAddress: address,
  width: size,
  height: size,
  statements: StatementsSchema,
});
export type FoundPicture = v.InferOutput<typeof FoundPictureSchema>;

/** A found picture as the web gets it: with an address to look at it, and the seal that lets it be taken. */
const SealedPictureSchema = v.object({
  ...FoundPictureSchema.entries,
  look: v.string(),
  seal: v.string(),
  /** The piece on the shelf that came from there, or null. */
  heldAs: v.nullable(v.object({ id: v.string(), name: v.string() })),
});
export type SealedPicture = v.InferOutput<typeof SealedPictureSchema>;

export const SourceSchema = v.object({
  id: v.picklist(SOURCE_IDS),
  name: v.string(),
  about: v.string(),
  kind: v.picklist(['collection', 'agency', 'archive', 'drive', 'web']),
});
export type SourceAbout = v.InferOutput<typeof SourceSchema>;

const flag = v.picklist(['yes', 'no']);
export const GatherQuerySchema = v.object({
  words: v.exactOptional(v.pipe(v.string(), v.maxLength(200))),
  commercial: v.exactOptional(flag),
  changes: v.exactOptional(flag),
  shape: v.exactOptional(v.picklist(['any', 'landscape', 'portrait', 'square'])),
  leastWidth: v.exactOptional(v.pipe(v.string(), v.regex(/^\d{1,5}$/))),
  cursor: v.exactOptional(v.pipe(v.string(), v.maxLength(300))),
});

/** One source's answer: a page of pictures, how many there are in all where it says, and where the next page begins. */
export const SourceAnswerSchema = v.object({
  pictures: v.array(SealedPictureSchema),
  count: v.nullable(v.number()),
  cursor: v.nullable(v.string()),
});

/** What was found at an address: a picture, or a page with pictures on it. */
export const AddressReadingSchema = v.object({
  kind: v.picklist(['picture', 'page']),
  address: v.string(),
  title: v.string(),
  pictures: v.array(SealedPictureSchema),
  leftOut: v.number(),
});

export const ReadAddressSchema = v.object({ address: v.pipe(v.string(), v.trim(), v.maxLength(2000)) });

/** A closer look at one result before it is taken. */
export const CloserWishSchema = v.object({ seal: v.string() });

export const CloserLookSchema = v.object({
  /** What its page says, beside what the source said. */
  pageSays: StatementsSchema,
  /** Why its page could not be read, or null. */
  pageFault: v.nullable(v.string()),
  alike: v.array(v.object({ asset: AssetSchema, bitsApart: v.number() })),
});
export type CloserLook = v.InferOutput<typeof CloserLookSchema>;

export const AlbumSchema = v.object({
  id: v.string(),
  name: v.string(),
  files: v.number(),
  /** How many of its files are not on the shelf yet, or have changed since. */
  fresh: v.number(),
});
export type Album = v.InferOutput<typeof AlbumSchema>;

/** Orders found pictures to be taken, for a page's tray or one of its wants, or for the shelf. */
export const TakeSchema = v.object({
  seals: v.pipe(v.array(v.pipe(v.string(), v.maxLength(40_000))), v.minLength(1), v.maxLength(500)),
  pageId: v.nullable(v.pipe(v.string(), v.maxLength(36))),
  wantId: v.nullable(v.pipe(v.string(), v.maxLength(64))),
  folder: v.pipe(v.string(), v.maxLength(420)),
  /** The licence that a person decided on where the places disagree; said of all that are taken. */
  licence: v.nullable(v.string()),
});
export type Take = v.InferOutput<typeof TakeSchema>;

const TakingSchema = v.object({
  ordinal: v.number(),
  name: v.string(),
  state: v.picklist(['waiting', 'in', 'refused', 'stopped']),
  sentence: v.string(),
  asset: v.nullable(AssetSchema),
  isNew: v.boolean(),
});
export type Taking = v.InferOutput<typeof TakingSchema>;

/** A gathering under way or done: each of its pictures with what became of it. */
export const GatheringSchema = v.object({
  jobId: v.string(),
  state: v.picklist(['waiting', 'running', 'done', 'failed', 'stopped']),
  words: v.string(),
  pageId: v.nullable(v.string()),
  takings: v.array(TakingSchema),
});
export type Gathering = v.InferOutput<typeof GatheringSchema>;

/** One coming of a piece: when, by whom, from where, and what was said there then. */
export const ProvenanceSchema = v.object({
  at: v.string(),
  by: v.string(),
  way: v.picklist(['upload', 'address', 'source', 'clip']),
  sourceName: v.nullable(v.string()),
  address: v.nullable(v.string()),
  pageAddress: v.nullable(v.string()),
  fileName: v.string(),
  said: StatementsSchema,
});
export type Provenance = v.InferOutput<typeof ProvenanceSchema>;

export const ClipperSchema = v.object({ id: v.string(), expiresAt: v.string(), madeAt: v.string() });
/** A clipper just made: its code is told this once. */
export const NewClipperSchema = v.object({ ...ClipperSchema.entries, code: v.string() });

export const HandInClipSchema = v.object({
  token: v.pipe(v.string(), v.maxLength(100)),
  address: v.pipe(v.string(), v.maxLength(2000)),
  selection: v.pipe(v.string(), v.maxLength(1000)),
});

export const ClipSchema = v.object({
  id: v.string(),
  address: v.string(),
  selection: v.string(),
  at: v.string(),
});
export type Clip = v.InferOutput<typeof ClipSchema>;

/** A sidecar without its picture, by its name. */
export const SidecarSchema = v.strictObject({
  file: v.pipe(v.string(), v.minLength(1), v.maxLength(300)),
  text: SidecarTextSchema,
});
export const SidecarTakenSchema = v.object({ asset: AssetSchema, sentence: v.string() });
export type SidecarTaken = v.InferOutput<typeof SidecarTakenSchema>;
