import * as v from 'valibot';

/** RFC 9457 problem details. `detail` says what is wrong, what was kept and what to do. */
export const ProblemSchema = v.looseObject({
  type: v.string(),
  title: v.string(),
  status: v.number(),
  detail: v.string(),
});

/** What was made, by its ID. */
export const MadeSchema = v.object({ id: v.string() });
