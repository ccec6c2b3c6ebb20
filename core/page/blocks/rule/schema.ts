import * as v from 'valibot';
import { IdSchema } from '../../id.ts';

export const RuleSchema = v.strictObject({
  type: v.literal('rule'),
  attrs: v.strictObject({ id: IdSchema }),
});
export type Rule = v.InferOutput<typeof RuleSchema>;
