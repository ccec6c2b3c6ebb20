import * as v from 'valibot';

const JOB_STATES = ['waiting', 'running', 'done', 'failed', 'stopped'] as const;

/** Work that takes longer than a request. `done` of `of` steps; `file` is where its result can be fetched. */
export const JobSchema = v.object({
  id: v.string(),
  kind: v.string(),
  title: v.string(),
  state: v.picklist(JOB_STATES),
  done: v.number(),
  of: v.number(),
  words: v.string(),
  file: v.nullable(v.string()),
  bytes: v.nullable(v.number()),
});
export type Job = v.InferOutput<typeof JobSchema>;
