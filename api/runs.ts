import * as v from 'valibot';
import { CUT_FORMATS, type CutFormat } from '#core/media/formats.ts';
import { PrepSchema } from '#core/media/recipe.ts';
import { RunOrderSchema } from '#core/run/order.ts';
import { RunWarningSchema } from '#core/run/warning.ts';

const FORMATS = Object.keys(CUT_FORMATS) as [CutFormat, ...CutFormat[]];
const state = v.object({ stem: v.string(), folder: v.string(), title: v.string(), prep: PrepSchema });

const PlannedFileSchema = v.object({
  name: v.string(),
  recipe: v.string(),
  width: v.number(),
  height: v.number(),
  format: v.picklist(FORMATS),
  quality: v.number(),
  bytes: v.number(),
});

/** What is settled for one piece of a run: how it is, how it will be, and what is made of it. */
const RunRowSchema = v.object({
  assetId: v.string(),
  before: state,
  after: state,
  files: v.array(PlannedFileSchema),
  warnings: v.array(RunWarningSchema),
  leftOut: v.nullable(v.picklist(['person', 'comp', 'nothing'])),
});

const shown = {
  thumb: v.string(),
  originalName: v.string(),
  width: v.number(),
  height: v.number(),
  bytes: v.number(),
};

const PreviewRowSchema = v.object({ ...RunRowSchema.entries, ...shown });
export type PreviewRow = v.InferOutput<typeof PreviewRowSchema>;

/** What a run would do. `seen` names this state: a run is begun on what a person has seen, or not at all. */
export const RunPreviewSchema = v.object({
  rows: v.array(PreviewRowSchema),
  /** Pieces that were chosen and are not on the shelf any more. */
  gone: v.number(),
  /** Where the subjects of names would come from, by source. */
  subjects: v.array(v.object({ from: v.string(), pieces: v.number() })),
  seen: v.string(),
});
export type RunPreview = v.InferOutput<typeof RunPreviewSchema>;

export const RunBeginSchema = v.strictObject({
  order: RunOrderSchema,
  seen: v.pipe(v.string(), v.maxLength(64)),
});

const STEP_STATES = ['waiting', 'done', 'refused', 'undone', 'out'] as const;

const RunStepSchema = v.object({
  ...PreviewRowSchema.entries,
  /** `out` took no part. */
  state: v.picklist(STEP_STATES),
  sentence: v.string(),
  /** Bytes of all its files, once they are made. */
  madeBytes: v.nullable(v.number()),
});
export type RunStep = v.InferOutput<typeof RunStepSchema>;

const counts = {
  id: v.string(),
  title: v.string(),
  state: v.picklist(['waiting', 'running', 'done', 'failed', 'stopped']),
  words: v.string(),
  into: v.picklist(['shelf', 'zip']),
  createdAt: v.string(),
  done: v.number(),
  refused: v.number(),
  undone: v.number(),
  /** Pieces that take part. */
  of: v.number(),
  perMinute: v.nullable(v.number()),
  secondsLeft: v.nullable(v.number()),
  file: v.nullable(v.string()),
  fileBytes: v.nullable(v.number()),
};

export const RunSummarySchema = v.object(counts);
export type RunSummary = v.InferOutput<typeof RunSummarySchema>;

export const RunSchema = v.object({ ...counts, order: RunOrderSchema, steps: v.array(RunStepSchema) });
export type Run = v.InferOutput<typeof RunSchema>;
