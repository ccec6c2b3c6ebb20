import type { Anchored } from '../../anchored.ts';
import type { HeadingLevel } from '../heading/schema.ts';

/** A heading in a list of contents, with those under it. */
export interface Entry {
  readonly heading: Anchored;
  readonly under: readonly Entry[];
}

/** The headings down to a level, each under the nearest one before it that is of a higher level. */
export function entriesOf(headings: readonly Anchored[], deepest: HeadingLevel): readonly Entry[] {
  const top: Entry[] = [];
  const open: { readonly level: number; readonly under: Entry[] }[] = [];
  for (const heading of headings.filter(({ level }) => level <= deepest)) {
    while ((open.at(-1)?.level ?? 0) >= heading.level) open.pop();
    const under: Entry[] = [];
    (open.at(-1)?.under ?? top).push({ heading, under });
    open.push({ level: heading.level, under });
  }
  return top;
}
