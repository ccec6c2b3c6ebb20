import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { GapSchema } from '../gap.ts';
import { HeadingSchema } from '../heading/schema.ts';
import { BulletListSchema, OrderedListSchema } from '../list/schema.ts';
import { ParagraphSchema } from '../paragraph/schema.ts';
import { PlacedBlockSchema } from '../placement/schema.ts';
import { WholeLinkSchema } from '../whole-link.ts';

/** What may stand in a card: a picture, a heading, words. */
const OnCardSchema = v.variant('type', [
  PlacedBlockSchema,
  HeadingSchema,
  ParagraphSchema,
  BulletListSchema,
  OrderedListSchema,
]);
export type OnCard = v.InferOutput<typeof OnCardSchema>;

const TYPES: ReadonlySet<string> = new Set(OnCardSchema.options.map(({ entries }) => entries.type.literal));

export function isOnCard(block: { readonly type: string }): block is OnCard {
  return TYPES.has(block.type);
}

/** One card of a row. It stands nowhere else. */
export const CardSchema = v.strictObject({
  type: v.literal('card'),
  attrs: v.strictObject({ id: IdSchema, link: WholeLinkSchema }),
  content: v.array(OnCardSchema),
});
export type Card = v.InferOutput<typeof CardSchema>;

/** How many cards stand beside each other where the window has room. */
export const CARDS_PER_ROW = [2, 3, 4] as const;
export type CardsPerRow = (typeof CARDS_PER_ROW)[number];

/** Px between cards. */
export const CARD_GAP = 24;

/** So many are made on the sheet; a page that comes from elsewhere may have more. */
export const CARDS_LIMIT = 60;
const MOST_CARDS = 1000;

export const CardsSchema = v.strictObject({
  type: v.literal('cards'),
  attrs: v.strictObject({ id: IdSchema, perRow: v.picklist(CARDS_PER_ROW), gap: GapSchema }),
  content: v.pipe(v.array(CardSchema), v.maxLength(MOST_CARDS)),
});
export type Cards = v.InferOutput<typeof CardsSchema>;

/** So many cards beside each other as there are, at most four. */
export function perRowFor(count: number): CardsPerRow {
  return count <= 2 ? 2 : count === 3 || count === 5 || count === 6 ? 3 : 4;
}

/** Words break into single ones on a card that is narrower. */
const LEAST_CARD_PX = 150;

/**
 * The window in px under which cards stand one below the other: where the target stacks what stands beside each other, or
 * where a card would be too narrow between the usual gaps.
 */
export function cardsStackBelow(
  perRow: CardsPerRow,
  { stackBelow, gutter }: Readonly<Record<'stackBelow' | 'gutter', number>>,
): number {
  return Math.max(stackBelow, perRow * LEAST_CARD_PX + (perRow - 1) * CARD_GAP + 2 * gutter);
}

/** Whether one card stands alone in the last row. */
export function isLastAlone({ attrs: { perRow }, content }: Pick<Cards, 'attrs' | 'content'>): boolean {
  return content.length > perRow && content.length % perRow === 1;
}
