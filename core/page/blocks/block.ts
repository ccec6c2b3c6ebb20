import * as v from 'valibot';
import { type Banner, type BannerWords, BannerWordsSchema } from './banner/schema.ts';
import type { BeforeAfter } from './before-after/schema.ts';
import { type Card, CardSchema, type Cards } from './cards/schema.ts';
import { type Column, ColumnSchema, type Columns } from './columns/schema.ts';
import { type Contents, ContentsSchema } from './contents/schema.ts';
import type { Details } from './details/schema.ts';
import type { FlowBlock } from './flow-block.ts';
import type { Gallery } from './gallery/schema.ts';
import { InPartSchema, type KeptPart, KeptPartSchema } from './kept-part/schema.ts';
import type { SideBox } from './side-box/schema.ts';
import { type Teaser, TeaserSchema } from './teaser/schema.ts';

/** One thing that a page holds. What each kind does is listed in `kinds.ts`. */
export type Block =
  | FlowBlock
  | Details
  | SideBox
  | Cards
  | Card
  | Columns
  | Column
  | Gallery
  | BeforeAfter
  | Banner
  | BannerWords
  | Teaser
  | KeptPart
  | Contents;

/** All that stands in running text, and what sets a part of the page apart. */
const PAGE_BLOCKS = v.variant('type', [
  ...InPartSchema.options,
  TeaserSchema,
  KeptPartSchema,
  ContentsSchema,
]);

/** What may stand on the page itself. Its type is that of any block, so that one walk goes through all of them. */
export const BlockSchema: v.GenericSchema<
  v.InferInput<typeof PAGE_BLOCKS> | Card | Column | BannerWords,
  Block
> = PAGE_BLOCKS;

/** Any block, also one that stands in another alone. */
export const AnyBlockSchema = v.variant('type', [
  ...PAGE_BLOCKS.options,
  CardSchema,
  ColumnSchema,
  BannerWordsSchema,
]);
