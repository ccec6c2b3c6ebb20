import * as v from 'valibot';
import { HouseRulesSchema } from '#core/page/target.ts';

export const TargetSchema = v.strictObject({ id: v.string(), version: v.number(), rules: HouseRulesSchema });
export type Target = v.InferOutput<typeof TargetSchema>;
