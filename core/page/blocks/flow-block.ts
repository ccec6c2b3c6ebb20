import * as v from 'valibot';
import { CodeBlockSchema } from './code-block/schema.ts';
import { HeadingSchema } from './heading/schema.ts';
import { BulletListSchema, OrderedListSchema } from './list/schema.ts';
import { ParagraphSchema } from './paragraph/schema.ts';
import { PlacedBlockSchema } from './placement/schema.ts';
import { QuotationSchema } from './quotation/schema.ts';
import { RuleSchema } from './rule/schema.ts';
import { TableSchema } from './table/schema.ts';

/** What may stand in a block that sets a part of the page apart: all that stands in running text. */
export const FlowBlockSchema = v.variant('type', [
  ParagraphSchema,
  HeadingSchema,
  BulletListSchema,
  OrderedListSchema,
  PlacedBlockSchema,
  QuotationSchema,
  CodeBlockSchema,
  RuleSchema,
  TableSchema,
]);
export type FlowBlock = v.InferOutput<typeof FlowBlockSchema>;

const TYPES: ReadonlySet<string> = new Set(
  FlowBlockSchema.options.map(({ entries }) => entries.type.literal),
);

export function isFlowBlock(block: { readonly type: string }): block is FlowBlock {
  return TYPES.has(block.type);
}
