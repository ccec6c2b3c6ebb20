import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { BannerSchema } from '../banner/schema.ts';
import { BeforeAfterSchema } from '../before-after/schema.ts';
import { CardsSchema } from '../cards/schema.ts';
import { ColumnsSchema } from '../columns/schema.ts';
import { DetailsSchema } from '../details/schema.ts';
import { FlowBlockSchema } from '../flow-block.ts';
import { GallerySchema } from '../gallery/schema.ts';
import { SideBoxSchema } from '../side-box/schema.ts';

/** All that stands on many pages alike: text and arrangements, and no part in another. */
export const InPartSchema = v.variant('type', [
  ...FlowBlockSchema.options,
  DetailsSchema,
  SideBoxSchema,
  CardsSchema,
  ColumnsSchema,
  GallerySchema,
  BeforeAfterSchema,
  BannerSchema,
]);
export type InPart = v.InferOutput<typeof InPartSchema>;

const TYPES: ReadonlySet<string> = new Set(InPartSchema.options.map(({ entries }) => entries.type.literal));

export function isInPart(block: { readonly type: string }): block is InPart {
  return TYPES.has(block.type);
}

/** A part holds as much as a person looks over before it changes on many pages. */
export const MOST_IN_PART = 100;

/** What is kept once and stands on pages alike. `part` names what is kept; empty while it is not kept yet. */
export const KeptPartSchema = v.strictObject({
  type: v.literal('keptPart'),
  attrs: v.strictObject({ id: IdSchema, part: v.union([v.literal(''), IdSchema]) }),
  content: v.array(InPartSchema),
});
export type KeptPart = v.InferOutput<typeof KeptPartSchema>;
