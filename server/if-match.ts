import type { Request } from 'express';
import { HttpProblem } from './problem.ts';

/** The version a write was made on, from `If-Match` (RFC 9110, 13.1.1). Writes without one are refused (428). */
export function versionOf(request: Request): number {
  const said = /^"?(\d{1,9})"?$/.exec(request.headers['if-match'] ?? '')?.[1];
  if (said === undefined)
    throw new HttpProblem(428, 'A write says on which version it was made (If-Match). Nothing was changed.');
  return Number(said);
}
