import * as v from 'valibot';

const SampleSchema = v.object({
  quality: v.number(),
  bytes: v.number(),
  likeness: v.number(),
  worst: v.nullable(v.object({ x: v.number(), y: v.number(), likeness: v.number() })),
});
export const CurvesSchema = v.array(
  v.object({
    format: v.picklist(['avif', 'webp', 'jpeg']),
    found: v.number(),
    samples: v.array(SampleSchema),
  }),
);
