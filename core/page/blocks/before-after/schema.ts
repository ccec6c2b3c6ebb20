import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { PlacedBlockSchema } from '../placement/schema.ts';

/** Where the divider stands at first, in percent of the width from the left. */
export const DIVIDER = { least: 0, most: 100, usual: 50 } as const;
export const DividerSchema = v.pipe(
  v.number(),
  v.integer('The divider stands at a whole percent.'),
  v.minValue(DIVIDER.least),
  v.maxValue(DIVIDER.most, `The divider stands at most at ${DIVIDER.most}%.`),
);

/** What two people make of one pair may hold more than two. */
const MOST_PICTURES = 10;

/** Two pictures of the same thing, the first before and the second after, with a divider between them that readers move. */
export const BeforeAfterSchema = v.strictObject({
  type: v.literal('beforeAfter'),
  attrs: v.strictObject({ id: IdSchema, divider: DividerSchema }),
  content: v.pipe(v.array(PlacedBlockSchema), v.maxLength(MOST_PICTURES)),
});
export type BeforeAfter = v.InferOutput<typeof BeforeAfterSchema>;
