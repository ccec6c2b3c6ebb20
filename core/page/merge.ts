import type { Block, PageDoc, Want } from './model.ts';

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
  const blocks = mergeBlocks(base.blocks, mine.blocks, theirs.blocks);
  return {
    page: {
      title: mine.title === base.title ? theirs.title : mine.title,
      wants: mergeById(base.wants, mine.wants, theirs.wants, (want) => want.id),
      tray: mergeById(base.tray, mine.tray, theirs.tray, (assetId) => assetId),
      blocks: blocks.blocks,
    },
    doubled: blocks.doubled,
  };
}

/** Whether all that changed between two states is what was gathered: nothing on the sheet, nothing in the title. */
export function isOnlyGathered(before: PageDoc, after: PageDoc): boolean {
  return before.title === after.title && same(before.blocks, after.blocks);
}

function same(one: unknown, other: unknown): boolean {
  return JSON.stringify(one) === JSON.stringify(other);
}

function mergeById<T extends Want | string>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  idOf: (item: T) => string,
): T[] {
  const find = (items: readonly T[], id: string) => items.find((item) => idOf(item) === id);
  const ids = [...new Set([...theirs, ...mine].map(idOf))];
  return ids.flatMap((id) => {
    const [b, m, t] = [find(base, id), find(mine, id), find(theirs, id)];
    if (b !== undefined && (m === undefined || t === undefined)) {
      const left = m ?? t;
      return left === undefined || same(left, b) ? [] : [left];
    }
    if (m === undefined || t === undefined) return m ?? t ?? [];
    return same(m, b) ? [t] : [m];
  });
}

/** Blocks by the classic three-way merge: stretches that both sides kept are the anchors. */
function mergeBlocks(base: readonly Block[], mine: readonly Block[], theirs: readonly Block[]) {
  const inMine = matches(base, mine);
  const inTheirs = matches(base, theirs);
  const blocks: Block[] = [];
  let doubled = 0;
  let [b, m, t] = [0, 0, 0];
  const settle = (bEnd: number, mEnd: number, tEnd: number) => {
    const own = mine.slice(m, mEnd);
    const other = theirs.slice(t, tEnd);
    const was = base.slice(b, bEnd);
    if (same(own, was) || same(own, other)) blocks.push(...other);
    else if (same(other, was)) blocks.push(...own);
    else {
      blocks.push(...other, ...own.filter((block) => !other.some((kept) => same(kept, block))));
      doubled += was.length > 0 ? 1 : 0;
    }
  };
  for (let at = 0; at < base.length; at += 1) {
    const mAt = inMine.get(at);
    const tAt = inTheirs.get(at);
    const anchor = base[at];
    if (mAt === undefined || tAt === undefined || !anchor) continue;
    settle(at, mAt, tAt);
    blocks.push(anchor);
    [b, m, t] = [at + 1, mAt + 1, tAt + 1];
  }
  settle(base.length, mine.length, theirs.length);
  return { blocks: withoutDoubledPlacements(blocks), doubled };
}

/** A placement moved by one side and changed by the other would stand twice under one id: the later one stays. */
function withoutDoubledPlacements(blocks: readonly Block[]): Block[] {
  const last = new Map<string, number>();
  blocks.forEach((block, at) => {
    if (block.type === 'placement') last.set(block.attrs.id, at);
  });
  return blocks.filter((block, at) => block.type !== 'placement' || last.get(block.attrs.id) === at);
}

/** For each block of `base` that stands in `other` as it was, its index there: a longest common subsequence. */
function matches(base: readonly Block[], other: readonly Block[]): ReadonlyMap<number, number> {
  const one = base.map((block) => JSON.stringify(block));
  const two = other.map((block) => JSON.stringify(block));
  const width = two.length + 1;
  const lengths = new Uint32Array((one.length + 1) * width);
  const at = (i: number, j: number) => lengths[i * width + j] ?? 0;
  for (let i = one.length - 1; i >= 0; i -= 1) {
    for (let j = two.length - 1; j >= 0; j -= 1) {
      lengths[i * width + j] =
        one[i] === two[j] ? at(i + 1, j + 1) + 1 : Math.max(at(i + 1, j), at(i, j + 1));
    }
  }
  const found = new Map<number, number>();
  for (let i = 0, j = 0; i < one.length && j < two.length; ) {
    if (one[i] === two[j]) {
      found.set(i, j);
      i += 1;
      j += 1;
    } else if (at(i + 1, j) >= at(i, j + 1)) i += 1;
    else j += 1;
  }
  return found;
}
