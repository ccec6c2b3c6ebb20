import * as v from 'valibot';
import { ColourSchema } from '../../../media/colour.ts';
import { OVER_PLACES } from '../../../media/over-words.ts';
import { IdSchema } from '../../id.ts';
import { HeadingSchema } from '../heading/schema.ts';
import { ParagraphSchema } from '../paragraph/schema.ts';
import { PlacedBlockSchema } from '../placement/schema.ts';
import { WholeLinkSchema } from '../whole-link.ts';

/** How wide a banner is: as the column, as what breaks out of it, or as the window. */
export const BANNER_POSITIONS = ['column', 'breakout', 'bleed'] as const;
export type BannerPosition = (typeof BANNER_POSITIONS)[number];

const InWordsSchema = v.variant('type', [HeadingSchema, ParagraphSchema]);

export function isInWords(block: { readonly type: string }): block is v.InferOutput<typeof InWordsSchema> {
  return block.type === 'heading' || block.type === 'paragraph';
}

/** What stands over the picture of a banner. It stands nowhere else. */
export const BannerWordsSchema = v.strictObject({
  type: v.literal('bannerWords'),
  attrs: v.strictObject({ id: IdSchema }),
  content: v.array(InWordsSchema),
});
export type BannerWords = v.InferOutput<typeof BannerWordsSchema>;

const InBannerSchema = v.variant('type', [PlacedBlockSchema, BannerWordsSchema]);

export function isInBanner(block: { readonly type: string }): block is v.InferOutput<typeof InBannerSchema> {
  return block.type === 'placement' || block.type === 'bannerWords';
}

/** What two people make of one banner may hold more than a picture and its words. */
const MOST_PARTS = 20;

/** A picture with words over it, which are text of the page. `plate` is the colour laid under them, null for none. */
export const BannerSchema = v.strictObject({
  type: v.literal('banner'),
  attrs: v.strictObject({
    id: IdSchema,
    position: v.picklist(BANNER_POSITIONS),
    place: v.picklist(OVER_PLACES),
    ink: ColourSchema,
    plate: v.nullable(ColourSchema),
    link: WholeLinkSchema,
  }),
  content: v.pipe(v.array(InBannerSchema), v.maxLength(MOST_PARTS)),
});
export type Banner = v.InferOutput<typeof BannerSchema>;

export const USUAL_BANNER: Omit<Banner['attrs'], 'id'> = {
  position: 'column',
  place: 'bottom left',
  ink: '#ffffff',
  plate: '#172126',
  link: '',
};
