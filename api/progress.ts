import * as v from 'valibot';
import { ProblemSchema } from './problem.ts';

/** Lines of JSON, one object each: how an answer tells on its way how far the work is. */
export const PROGRESS_LINES = 'application/x-ndjson';

/** How far work is: so many of so many. */
const StepSchema = v.object({ done: v.number(), of: v.number() });
export type Step = v.InferOutput<typeof StepSchema>;

/** One line: a step, and last the answer or the problem. */
export const ProgressLineSchema = v.union([
  StepSchema,
  v.object({ answer: v.unknown() }),
  v.object({ problem: ProblemSchema }),
]);
