import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { FlowBlockSchema } from '../flow-block.ts';

/** Where a side box stands: beside the text, which runs round it, or in its column. */
export const BOX_POSITIONS = ['beside-right', 'beside-left', 'column'] as const;
export type BoxPosition = (typeof BOX_POSITIONS)[number];

export const BoxTitleSchema = v.pipe(v.string(), v.trim(), v.maxLength(300));

/** Percent of what it stands in that a box beside the text takes. */
export const BOX_SHARE = { least: 20, most: 60, usual: 40 } as const;
export const BoxShareSchema = v.pipe(
  v.number(),
  v.integer(),
  v.minValue(BOX_SHARE.least, `A box beside the text takes at least ${BOX_SHARE.least}%.`),
  v.maxValue(BOX_SHARE.most, `A box beside the text takes at most ${BOX_SHARE.most}%.`),
);

export const SideBoxSchema = v.strictObject({
  type: v.literal('sideBox'),
  attrs: v.strictObject({
    id: IdSchema,
    title: BoxTitleSchema,
    position: v.picklist(BOX_POSITIONS),
    share: BoxShareSchema,
  }),
  content: v.array(FlowBlockSchema),
});
export type SideBox = v.InferOutput<typeof SideBoxSchema>;
