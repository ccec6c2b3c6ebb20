import * as v from 'valibot';

const MeasuredSchema = v.object({
  quality: v.number(),
  bytes: v.number(),
  likeness: v.number(),
  worst: v.object({ x: v.number(), y: v.number(), likeness: v.number() }),
});
export const CurvesSchema = v.array(
  v.object({ format: v.picklist(['avif', 'webp', 'jpeg']), samples: v.array(MeasuredSchema) }),
);
