import * as v from 'valibot';
import { HouseRulesSchema } from '#core/page/target.ts';

export const TargetSchema = v.object({ id: v.string(), version: v.number(), rules: HouseRulesSchema });
export type Target = v.InferOutput<typeof TargetSchema>;

/** What has to be said of a new target; all else is as usual, or as on the target it is like. */
export const NewTargetSchema = v.strictObject({
  ...v.pick(HouseRulesSchema, ['name', 'siteAddress', 'commercial']).entries,
  like: v.optional(v.pipe(v.string(), v.maxLength(36))),
});
export type NewTarget = v.InferOutput<typeof NewTargetSchema>;
