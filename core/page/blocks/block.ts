import * as v from 'valibot';
import { type Card, CardSchema, type Cards, CardsSchema } from './cards/schema.ts';
import { type CodeBlock, CodeBlockSchema } from './code-block/schema.ts';
import { type Details, DetailsSchema } from './details/schema.ts';
import { type Heading, HeadingSchema } from './heading/schema.ts';
import { BulletListSchema, type List, OrderedListSchema } from './list/schema.ts';
import { type Paragraph, ParagraphSchema } from './paragraph/schema.ts';
import { type PlacedBlock, PlacedBlockSchema } from './placement/schema.ts';
import { type Quotation, QuotationSchema } from './quotation/schema.ts';
import { type Rule, RuleSchema } from './rule/schema.ts';
import { type SideBox, SideBoxSchema } from './side-box/schema.ts';
import { type Table, TableSchema } from './table/schema.ts';

/** One thing that a page holds. What each kind does is listed in `kinds.ts`. */
export type Block =
  | Paragraph
  | Heading
  | List
  | PlacedBlock
  | Quotation
  | CodeBlock
  | Rule
  | Table
  | Details
  | SideBox
  | Cards
  | Card;

const PAGE_BLOCKS = v.variant('type', [
  ParagraphSchema,
  HeadingSchema,
  BulletListSchema,
  OrderedListSchema,
  PlacedBlockSchema,
  QuotationSchema,
  CodeBlockSchema,
  RuleSchema,
  TableSchema,
  DetailsSchema,
  SideBoxSchema,
  CardsSchema,
]);

/** What may stand on the page itself. Its type is that of any block, so that one walk goes through all of them. */
export const BlockSchema: v.GenericSchema<v.InferInput<typeof PAGE_BLOCKS> | Card, Block> = PAGE_BLOCKS;

/** Any block, also one that stands in another alone. */
export const AnyBlockSchema = v.variant('type', [...PAGE_BLOCKS.options, CardSchema]);
