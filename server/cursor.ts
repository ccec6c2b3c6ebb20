import * as v from 'valibot';
import { HttpProblem } from './problem.ts';

/** Where a list goes on: by what its last row was put in order, and that row's ID. */
const CursorSchema = v.pipe(
  v.string(),
  v.rawTransform(({ dataset, addIssue, NEVER }) => {
    try {
      return JSON.parse(Buffer.from(dataset.value, 'base64url').toString()) as unknown;
    } catch {
      addIssue({ message: 'Not a cursor.' });
      return NEVER;
    }
  }),
  v.strictTuple([v.union([v.string(), v.number()]), v.string()]),
);

export function writeCursor(value: string | number, id: string): string {
  return Buffer.from(JSON.stringify([value, id])).toString('base64url');
}

/** Throws an HttpProblem for what is no cursor of ours. */
export function readCursor(cursor: string): readonly [string | number, string] {
  const parsed = v.safeParse(CursorSchema, cursor);
  if (!parsed.success)
    throw new HttpProblem(422, 'The list cannot go on from there. Ask again from its start.');
  return parsed.output;
}
