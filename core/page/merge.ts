import isEqual from 'fast-deep-equal';
import { mergeTrees } from './merge-blocks.ts';
import type { PageDoc, Want } from './model.ts';

/** A merged page, and how many places both sides changed differently (both are kept, one after the other). */
export interface Merge {
  readonly page: PageDoc;
  readonly doubled: number;
}

/**
 * Puts two changed states of a page together, against the state both began from. A place that only one side
 * changed takes that side; a block that both changed is kept twice, theirs first, so that nothing is lost.
 */
export function mergePages(base: PageDoc, mine: PageDoc, theirs: PageDoc): Merge {
  const { blocks, doubled } = mergeTrees(base.blocks, mine.blocks, theirs.blocks);
  return {
    page: {
      title: mine.title === base.title ? theirs.title : mine.title,
      wants: mergeById(base.wants, mine.wants, theirs.wants, (want) => want.id),
      ...mergedFacts(base, mine, theirs),
      tray: mergeById(base.tray, mine.tray, theirs.tray, (assetId) => assetId),
      blocks,
    },
    doubled,
  };
}

/** What may be said of a page or not: of two hands the one that changed it. */
function mergedFacts(base: PageDoc, mine: PageDoc, theirs: PageDoc): Pick<PageDoc, 'lead' | 'address'> {
  const { lead } = mine.lead === base.lead ? theirs : mine;
  const { address } = mine.address === base.address ? theirs : mine;
  return { ...(lead === undefined ? {} : { lead }), ...(address === undefined ? {} : { address }) };
}

/** Whether all that changed between two states is what was gathered: nothing on the sheet, nothing in the title. */
export function isOnlyGathered(before: PageDoc, after: PageDoc): boolean {
  const facts = ['title', 'lead', 'address', 'blocks'] as const;
  return facts.every((fact) => isEqual(before[fact], after[fact]));
}

function mergeById<T extends Want | string>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  idOf: (item: T) => string,
): T[] {
  const byId = (items: readonly T[]) => new Map(items.map((item) => [idOf(item), item]));
  const [was, own, other] = [byId(base), byId(mine), byId(theirs)];
  const ids = [...new Set([...other.keys(), ...own.keys()])];
  return ids.flatMap((id) => {
    const [b, m, t] = [was.get(id), own.get(id), other.get(id)];
    if (b !== undefined && (m === undefined || t === undefined)) {
      const left = m ?? t;
      return left === undefined || isEqual(left, b) ? [] : [left];
    }
    if (m === undefined || t === undefined) return m ?? t ?? [];
    return isEqual(m, b) ? [t] : [m];
  });
}
