import * as v from 'valibot';

const FORMATS = ['avif', 'webp', 'jpeg'] as const;

const SampleSchema = v.object({
  quality: v.number(),
  bytes: v.number(),
  /** SSIM against the untouched cut, 1 for the same. */
  likeness: v.number(),
  /** Of a file that was written and measured; null where bytes and likeness are foretold from parts of the picture. */
  written: v.nullable(
    v.object({
      /** Where it looks least alike, in fractions of the cut. */
      worst: v.object({ x: v.number(), y: v.number(), likeness: v.number() }),
      /** The part round that place at its own pixels, as it is written and untouched. */
      detail: v.string(),
      untouched: v.string(),
    }),
  ),
});
export type LikenessSample = v.InferOutput<typeof SampleSchema>;
export type WrittenSample = NonNullable<LikenessSample['written']>;

/** How bytes and likeness hang together for one cut. */
export const LikenessCurveSchema = v.object({
  width: v.number(),
  height: v.number(),
  /** The likeness that the house rules want. */
  wanted: v.number(),
  formats: v.array(
    v.object({
      format: v.picklist(FORMATS),
      /** The quality at which this format looks as alike as the house rules want: how it goes out. */
      found: v.number(),
      samples: v.array(SampleSchema),
    }),
  ),
});
export type LikenessCurve = v.InferOutput<typeof LikenessCurveSchema>;
export type CurveFormat = LikenessCurve['formats'][number]['format'];

const width = v.pipe(v.string(), v.regex(/^\d{1,5}$/), v.transform(Number));
const about = { recipe: v.pipe(v.string(), v.maxLength(255)), target: v.pipe(v.string(), v.maxLength(36)) };

export const LikenessQuerySchema = v.strictObject({ ...about, width });

export const SampleWishSchema = v.strictObject({
  ...about,
  width: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(20_000)),
  format: v.picklist(FORMATS),
  quality: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100)),
});
