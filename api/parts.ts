import * as v from 'valibot';
import { InPartSchema, MOST_IN_PART } from '#core/page/blocks/kept-part/schema.ts';
import { AssetSchema } from './assets.ts';

export const PartNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'Give the part a name, as “Opening hours”.'),
  v.maxLength(200, 'A name of a part has at most 200 letters.'),
);

const PartBlocksSchema = v.pipe(
  v.array(InPartSchema),
  v.minLength(1, 'There is nothing in it to be kept.'),
  v.maxLength(MOST_IN_PART, 'A part has at most 100 blocks. Keep it in two.'),
);

export const NewPartSchema = v.strictObject({ name: PartNameSchema, blocks: PartBlocksSchema });

/** What a part is to be everywhere. */
export const ChangePartSchema = v.strictObject({ name: PartNameSchema, blocks: PartBlocksSchema });

/** A part as lists show it, with on how many pages it stands. */
const PartSummarySchema = v.object({
  id: v.string(),
  name: v.string(),
  pages: v.number(),
  updatedAt: v.string(),
  updatedBy: v.string(),
});

/** By name, at most `MOST_PARTS_LISTED`. */
export const PartListSchema = v.object({ parts: v.array(PartSummarySchema), count: v.number() });
export const MOST_PARTS_LISTED = 200;

/** A part whole: what is kept, and the pages that it stands on, each with whether it is changed there for itself. */
export const PartSchema = v.object({
  id: v.string(),
  name: v.string(),
  version: v.number(),
  blocks: v.array(InPartSchema),
  pieces: v.array(AssetSchema),
  pages: v.array(v.object({ id: v.string(), title: v.string(), isOwn: v.boolean() })),
});
export type Part = v.InferOutput<typeof PartSchema>;

/** What a change did: on how many pages it stands anew, and how many kept what they had changed for themselves. */
export const PartChangedSchema = v.object({ version: v.number(), changed: v.number(), own: v.number() });
