import * as v from 'valibot';
import { DOCUMENT_FORMAT_NAMES } from '#core/document/formats.ts';
import { HostDecisionSchema, HostEntriesSchema } from '#core/embed/host.ts';
import { EmbedSchema } from '#core/embed/model.ts';
import { FilmFactsSchema } from '#core/film/facts.ts';
import { MadeFileSchema } from '#core/film/made.ts';
import { FilmRecipeSchema } from '#core/film/recipe.ts';
import { ConditionSchema, CropRectSchema } from '#core/media/condition.ts';
import type { Lights } from '#core/media/over-contrast.ts';
import { PrepSchema } from '#core/media/recipe.ts';
import type { HeldEmbed } from '#core/page/piece.ts';
import { LicenceKeySchema } from '#core/rights/house-licence.ts';
import { LabelPatchSchema, LabelSchema } from '#core/rights/label.ts';
import { FramingSchema, PosterSchema } from './embeds.ts';

/** An embed of a piece, as `core` knows it. */
export const HeldEmbedSchema = v.object({
  embed: EmbedSchema,
  hosts: v.object({ entries: HostEntriesSchema, decisions: v.array(HostDecisionSchema) }),
  framing: v.record(v.string(), FramingSchema),
  poster: PosterSchema,
}) satisfies v.GenericSchema<unknown, HeldEmbed>;

/** A page that a piece stands on; without its title for those who do not read pages. */
const page = v.strictObject({ id: v.string(), title: v.nullable(v.string()) });

const channel = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(255));
/** A piece as it came, as a few px, row by row. */
export const LightsSchema = v.object({
  columns: v.number(),
  rows: v.number(),
  rgb: v.array(channel),
}) satisfies v.GenericSchema<unknown, Lights>;

/** What every kind has: what it is called, what is said of it, and the picture that shows it. Sizes in px and bytes; addresses are ready to be shown. */
const shared = {
  id: v.string(),
  version: v.number(),
  stem: v.string(),
  extension: v.string(),
  folder: v.string(),
  width: v.number(),
  height: v.number(),
  bytes: v.number(),
  format: v.string(),
  alpha: v.boolean(),
  animated: v.boolean(),
  label: v.object(LabelSchema.entries),
  /** Label fields that the file said of itself and no person has confirmed. */
  drafted: v.array(v.string()),
  /** What was found on the file when it came in. */
  conditions: v.array(ConditionSchema),
  /** The part inside a baked-in border, in fractions of the original, or null. */
  trim: v.nullable(CropRectSchema),
  /** What is done to it wherever it is shown. */
  prep: PrepSchema,
  /** Size in px of the original; `width` and `height` are of what its trim leaves. */
  original: v.object({ width: v.number(), height: v.number() }),
  /** The piece that stands on the shelf for this lookalike, or null. */
  foldedInto: v.nullable(v.string()),
  /** When it was thrown away, or null. */
  deletedAt: v.nullable(v.string()),
  originalName: v.string(),
  thumb: v.string(),
  view: v.string(),
  /** The original as it came, before anything is done to it. */
  plainView: v.string(),
  createdAt: v.string(),
  createdBy: v.object({ id: v.string(), name: v.string() }),
  usedOn: v.array(page),
} as const;

const DocumentFactsSchema = v.object({
  format: v.picklist(DOCUMENT_FORMAT_NAMES),
  bytes: v.number(),
  pages: v.nullable(v.number()),
});

/** A piece as the web knows it: a union on its kind. */
export const AssetSchema = v.variant('kind', [
  v.object({ ...shared, kind: v.literal('picture') }),
  /** What it embeds, with the hosts that bear on it and what its host said to each target. */
  v.object({ ...shared, kind: v.literal('embed'), embed: HeldEmbedSchema }),
  /** `file` is where its own file is downloaded from. */
  v.object({ ...shared, kind: v.literal('document'), document: DocumentFactsSchema, file: v.string() }),
  /** `file` is where its own file is had, `plays` where it plays from: made for the web where browsers do not play it as it came. */
  v.object({
    ...shared,
    kind: v.literal('film'),
    film: FilmFactsSchema,
    recipe: FilmRecipeSchema,
    made: v.pipe(v.array(MadeFileSchema), v.readonly()),
    outOfStep: v.pipe(v.array(v.string()), v.readonly()),
    chapters: v.pipe(v.array(v.string()), v.readonly()),
    transcripts: v.pipe(v.array(v.string()), v.readonly()),
    captions: v.pipe(v.array(v.string()), v.readonly()),
    /** Where its captions are read from, in the order of their languages. */
    tracks: v.array(v.string()),
    file: v.string(),
    plays: v.string(),
  }),
]);
export type Asset = v.InferOutput<typeof AssetSchema>;

const weight = v.object({ count: v.number(), bytes: v.number() });

/** The files that were made of a piece: for pages as they are now, for Placard's own screens, by runs, and of no use any more. */
export const MadeCutsSchema = v.object({
  onPages: v.array(
    v.object({
      width: v.number(),
      format: v.string(),
      bytes: v.number(),
      recipe: v.string(),
      /** Titles of the pages that need it; none for those who do not read pages. */
      pages: v.array(v.string()),
    }),
  ),
  onScreens: weight,
  byRuns: weight,
  unused: weight,
});
export type MadeCuts = v.InferOutput<typeof MadeCutsSchema>;

const ASSET_ORDERS = ['newest', 'oldest', 'name', 'widest'] as const;
export type AssetOrder = (typeof ASSET_ORDERS)[number];

/** The licence part of the Shelf's sentence. */
const LicenceQuestionSchema = v.union([v.picklist(['any', 'commercial', 'changeable']), LicenceKeySchema]);

const optionalInteger = v.optional(v.pipe(v.string(), v.regex(/^\d{1,6}$/), v.transform(Number)));

/** Asks for the pieces that lie in no folder: no folder can be called so (`core/naming/folders.ts`). */
export const UNFILED = '-';

/** The Shelf's sentence as query parameters. */
export const AssetQuerySchema = v.strictObject({
  kind: v.optional(
    v.picklist(['any', 'photo', 'drawing', 'animated', 'transparent', 'embed', 'document', 'film']),
  ),
  folder: v.optional(v.pipe(v.string(), v.maxLength(500))),
  licence: v.optional(LicenceQuestionSchema),
  words: v.optional(v.pipe(v.string(), v.maxLength(200))),
  missing: v.optional(v.picklist(['nothing', 'alt', 'title', 'creator'])),
  /** Which part of the shelf: what stands on it, what one has pinned, what was folded away, what was thrown away. */
  part: v.optional(v.picklist(['standing', 'pinned', 'folded', 'thrown-away'])),
  shape: v.optional(v.picklist(['any', 'landscape', 'portrait', 'square'])),
  leastWidth: optionalInteger,
  order: v.optional(v.picklist(ASSET_ORDERS)),
  cursor: v.optional(v.pipe(v.string(), v.maxLength(400))),
  limit: optionalInteger,
});
export type AssetQuery = v.InferInput<typeof AssetQuerySchema>;

/** Fields of labels whose values are offered while they are typed again. */
const IN_USE_FIELDS = ['keywords', 'place', 'creator', 'source'] as const;
export type InUseField = (typeof IN_USE_FIELDS)[number];

/** Values in use that begin as what is typed. */
export const InUseQuerySchema = v.strictObject({
  field: v.picklist(IN_USE_FIELDS),
  begins: v.pipe(v.string(), v.maxLength(100)),
});
export const InUseSchema = v.array(v.string());

export const AssetListSchema = v.object({
  assets: v.array(AssetSchema),
  cursor: v.nullable(v.string()),
});

/**
 * How many pieces answer a question, of how many that stand on the shelf. `readAs` are the words that were looked for, where
 * no piece has those that were asked for.
 */
export const AssetCountSchema = v.object({
  found: v.number(),
  held: v.number(),
  readAs: v.nullable(v.string()),
});

export const FolderListSchema = v.array(v.object({ path: v.string(), pieces: v.number() }));

const folderText = v.pipe(v.string(), v.maxLength(420, 'A folder’s path has at most 420 letters.'));
export const FolderSchema = v.strictObject({ path: folderText });
export const MoveFolderSchema = v.strictObject({ from: folderText, to: folderText });

/** A change to a piece: parts of its label, its name, its folder. `confirmed` fields are no longer drafts, and
 * `drafted` ones are drafts again, as when their confirming is undone. */
export const AssetChangeSchema = v.strictObject({
  label: v.optional(LabelPatchSchema),
  stem: v.optional(v.pipe(v.string(), v.maxLength(200))),
  folder: v.optional(v.pipe(v.string(), v.maxLength(500))),
  confirmed: v.optional(v.array(v.string())),
  drafted: v.optional(v.array(v.string())),
  trim: v.optional(v.nullable(CropRectSchema)),
  prep: v.optional(PrepSchema),
  /** What is made of a film. */
  recipe: v.optional(FilmRecipeSchema),
  embed: v.optional(EmbedSchema),
});
export type AssetChange = v.InferOutput<typeof AssetChangeSchema>;

/** A piece on the shelf that looks like another; `bitsApart` of 64. */
export const LookalikesSchema = v.array(v.object({ asset: AssetSchema, bitsApart: v.number() }));

const otherId = v.pipe(v.string(), v.maxLength(36));
export const KeepApartSchema = v.strictObject({ other: otherId });
export const FoldSchema = v.strictObject({ into: v.nullable(otherId) });
export const ReplaceSchema = v.strictObject({ by: otherId });
/** The pages on which a piece has words of its own: said there alone, and kept there when another takes its place. */
export const OwnWordsSchema = v.array(
  v.object({ id: v.string(), title: v.string(), alt: v.boolean(), caption: v.boolean() }),
);
export type OwnWords = v.InferOutput<typeof OwnWordsSchema>;

/** How many pages changed, and the moment that names the replacement when it is taken back. */
export const ReplacedSchema = v.object({ pages: v.number(), at: v.string() });
export const TakeBackSchema = v.strictObject({ at: v.pipe(v.string(), v.isoTimestamp()) });

/** Takes in a finished upload; asking twice answers the same. */
/** A sidecar in XMP: the largest that programs write hold a history of every step, and are some 100 kB. */
export const SidecarTextSchema = v.pipe(
  v.string(),
  v.maxLength(1_000_000, 'A sidecar is at most 1 MB large. Nothing was changed.'),
);

/** A finished upload; with the text of the sidecar that lay beside the file, where there was one. */
export const ArrivalSchema = v.strictObject({
  uploadId: v.pipe(v.string(), v.regex(/^[a-f0-9]{32}$/)),
  sidecar: v.optional(SidecarTextSchema),
});

export const ArrivedSchema = v.object({
  asset: AssetSchema,
  /** False when the very same file was already held. */
  isNew: v.boolean(),
  sentence: v.string(),
});
export type Arrived = v.InferOutput<typeof ArrivedSchema>;

/** A file that came in, with the comp whose original it is by its looks; null where there is none. */
export const ArrivedFileSchema = v.object({ ...ArrivedSchema.entries, comp: v.nullable(AssetSchema) });

/** Where the computer would put the focal point, in shares of width and height. */
export const FocalSchema = v.object({ x: v.number(), y: v.number() });
