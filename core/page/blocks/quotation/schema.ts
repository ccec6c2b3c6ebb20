import * as v from 'valibot';
import { WebAddressSchema } from '../../../rights/web-address.ts';
import { IdSchema } from '../../id.ts';
import { BulletListSchema, OrderedListSchema } from '../list/schema.ts';
import { ParagraphSchema } from '../paragraph/schema.ts';
import { PlacedBlockSchema } from '../placement/schema.ts';

/** What may stand in a quotation. */
const QuotedSchema = v.variant('type', [
  ParagraphSchema,
  BulletListSchema,
  OrderedListSchema,
  PlacedBlockSchema,
]);
export type Quoted = v.InferOutput<typeof QuotedSchema>;

const TYPES: ReadonlySet<string> = new Set(QuotedSchema.options.map(({ entries }) => entries.type.literal));

export function isQuoted(block: { readonly type: string }): block is Quoted {
  return TYPES.has(block.type);
}

/** Whose words they are: a name, an office, a work; empty where it is not said. */
export const AttributionSchema = v.pipe(v.string(), v.trim(), v.maxLength(300));

/** Where the words can be read, as a web address; empty where it is not said. */
export const CiteSchema = WebAddressSchema;

export const QuotationSchema = v.strictObject({
  type: v.literal('quotation'),
  attrs: v.strictObject({ id: IdSchema, attribution: AttributionSchema, cite: CiteSchema }),
  content: v.array(QuotedSchema),
});
export type Quotation = v.InferOutput<typeof QuotationSchema>;
