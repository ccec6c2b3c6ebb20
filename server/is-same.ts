import { isDeepStrictEqual } from 'node:util';

/** Whether two stored values say the same, in whatever order their fields stand. */
export function isSame(one: unknown, other: unknown): boolean {
  return isDeepStrictEqual(JSON.parse(JSON.stringify(one)), JSON.parse(JSON.stringify(other)));
}
