import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { FlowBlockSchema } from '../flow-block.ts';

/** What a folded section says while it is closed; empty where that is not said yet. */
export const SummarySchema = v.pipe(v.string(), v.trim(), v.maxLength(300));

export const DetailsSchema = v.strictObject({
  type: v.literal('details'),
  attrs: v.strictObject({ id: IdSchema, summary: SummarySchema }),
  content: v.array(FlowBlockSchema),
});
export type Details = v.InferOutput<typeof DetailsSchema>;
