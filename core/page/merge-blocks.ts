import isEqual from 'fast-deep-equal';
import * as v from 'valibot';
import { PAGE, type Tree, type TreeNode, treeOf } from './block-tree.ts';
import { AnyBlockSchema, type Block } from './blocks/block.ts';
import { kindOf } from './blocks/kinds.ts';
import { mergedOrder } from './merge-order.ts';

/** Of a place that both changed: which side goes on, or both, one after the other. */
export type Way = 'both' | 'mine' | 'theirs';

/** A block that both sides changed in ways that do not go together. */
export interface BlockClash {
  readonly kind: 'block';
  readonly id: string;
  readonly mine: Block;
  readonly theirs: Block;
}

/**
 * The blocks of two changed states put together against the state both began from, by their IDs, at any depth. What one side
 * alone changed, moved, added or took out is as that side has it; what one changed and the other took out stays. Of attributes
 * that both changed differently, and of words, `wayOf` says which goes on: by itself both are kept, theirs in its place and mine
 * behind it under a new ID. n log n in the number of blocks.
 */
export function mergeTrees(
  base: readonly Block[],
  mine: readonly Block[],
  theirs: readonly Block[],
  wayOf: (id: string) => Way = () => 'both',
): { readonly blocks: Block[]; readonly clashes: readonly BlockClash[] } {
  const trees = { base: treeOf(base), mine: treeOf(mine), theirs: treeOf(theirs) };
  const kept = new Map<string, Kept>();
  for (const id of new Set([...trees.theirs.nodes.keys(), ...trees.mine.nodes.keys()])) {
    const one = keptOf(id, trees);
    if (one) kept.set(id, one);
  }
  const parents = parentsOf(kept, trees);
  const inside = groupedBy(kept.keys(), (id) => parents.get(id) ?? PAGE);
  const clashes: BlockClash[] = [];
  const build = (parent: string): Block[] =>
    orderIn(parent, new Set(inside.get(parent)), trees).flatMap((id) => {
      const one = kept.get(id);
      if (!one) return [];
      const [block, copy] = one.blocks;
      const within = build(id);
      if (!copy) return [holding(block, within)];
      clashes.push({ kind: 'block', id, mine: copy, theirs: block });
      const way = wayOf(id);
      if (way === 'mine') return [holding(copy, within)];
      return way === 'theirs' ? [holding(block, within)] : [holding(block, within), copyOf(copy, id, kept)];
    });
  return { blocks: build(PAGE), clashes };
}

function holding(block: Block, within: readonly Block[]): Block {
  const { inside } = kindOf(block);
  return inside ? inside.with(block, within) : block;
}

function groupedBy(
  ids: Iterable<string>,
  by: (id: string) => string,
): ReadonlyMap<string, readonly string[]> {
  const groups = new Map<string, string[]>();
  for (const id of ids) {
    const key = by(id);
    const group = groups.get(key);
    if (group) group.push(id);
    else groups.set(key, [id]);
  }
  return groups;
}

interface Trees {
  readonly base: Tree;
  readonly mine: Tree;
  readonly theirs: Tree;
}

/** A block that stays: as it is now, and mine beside it where both sides changed the same of it. */
interface Kept {
  readonly blocks: readonly [Block, Block?];
}

function keptOf(id: string, { base, mine, theirs }: Trees): Kept | null {
  const [was, own, other] = [base.nodes.get(id), mine.nodes.get(id), theirs.nodes.get(id)];
  if (own && other) return both(was, own, other);
  const left = own ?? other;
  if (!left) return null;
  // Taken out by one side: it only stays where the other changed it, or something in it.
  if (was && isUntouched(was, left)) return null;
  return { blocks: [left.block] };
}

const isUntouched = (was: TreeNode, now: TreeNode) => isEqual(was.block, now.block);

function both(was: TreeNode | undefined, mine: TreeNode, theirs: TreeNode): Kept {
  if (was && isEqual(mine.own, was.own)) return { blocks: [theirs.block] };
  if (was && isEqual(theirs.own, was.own)) return { blocks: [mine.block] };
  if (isEqual(mine.own, theirs.own)) return { blocks: [theirs.block] };
  const joined = was && joinedAttributes(was.block, mine.block, theirs.block);
  return { blocks: joined ? [joined] : [theirs.block, mine.block] };
}

/** A block of which each side changed other attributes, or one the attributes and the other the words; null where they meet. */
function joinedAttributes(was: Block, own: Block, other: Block): Block | null {
  if (was.type !== own.type || was.type !== other.type) return null;
  const content = settled(contentOf(was), contentOf(own), contentOf(other));
  if (!content) return null;
  const attrs = new Map<string, unknown>(Object.entries(other.attrs));
  for (const name of new Set([...Object.keys(own.attrs), ...Object.keys(other.attrs)])) {
    const value = settled(attributeOf(was, name), attributeOf(own, name), attributeOf(other, name));
    if (!value) return null;
    if (value.of === undefined) attrs.delete(name);
    else attrs.set(name, value.of);
  }
  const source = content.of === contentOf(own) ? own : other;
  const joined = v.safeParse(AnyBlockSchema, { ...source, attrs: Object.fromEntries(attrs) });
  return joined.success ? joined.output : null;
}

const contentOf = (block: Block): unknown =>
  'content' in block && !kindOf(block).inside ? block.content : undefined;
const attributeOf = ({ attrs }: Block, name: string): unknown =>
  Object.entries(attrs).find(([key]) => key === name)?.[1];

function settled(was: unknown, own: unknown, other: unknown): { readonly of: unknown } | null {
  if (isEqual(own, was) || isEqual(own, other)) return { of: other };
  return isEqual(other, was) ? { of: own } : null;
}

/** Which block, or the page, each kept block stands in: as the side has it that moved it, theirs where both did. */
function parentsOf(
  kept: ReadonlyMap<string, Kept>,
  { base, mine, theirs }: Trees,
): ReadonlyMap<string, string> {
  const parents = new Map<string, string>();
  for (const id of kept.keys()) {
    const [was, own, other] = [base.nodes.get(id), mine.nodes.get(id), theirs.nodes.get(id)];
    const parent = other && (!own || other.parent !== was?.parent) ? other.parent : (own?.parent ?? PAGE);
    parents.set(id, kept.has(parent) ? parent : PAGE);
  }
  // Each moved the other into what it moved: the first of them goes out onto the page.
  for (const id of parents.keys())
    if (parents.get(id) !== PAGE && isInItself(id, parents)) parents.set(id, PAGE);
  return parents;
}

function isInItself(id: string, parents: ReadonlyMap<string, string>): boolean {
  const seen = new Set<string>();
  let at = parents.get(id) ?? PAGE;
  while (at !== PAGE && !seen.has(at)) {
    if (at === id) return true;
    seen.add(at);
    at = parents.get(at) ?? PAGE;
  }
  return false;
}

function orderIn(parent: string, ids: ReadonlySet<string>, { base, mine, theirs }: Trees): readonly string[] {
  const here = ({ order }: Tree) => order.get(parent) ?? [];
  return mergedOrder(ids, { base: here(base), mine: here(mine), theirs: here(theirs) });
}

/** Mine, beside theirs: a block of its own, without what stands in it. */
function copyOf(block: Block, id: string, kept: ReadonlyMap<string, Kept>): Block {
  const { inside } = kindOf(block);
  const bare = inside ? inside.with(block, []) : block;
  let fresh = `${id.slice(0, 50)}-also`;
  while (kept.has(fresh)) fresh = `${fresh.slice(0, 58)}-again`;
  return v.parse(AnyBlockSchema, { ...bare, attrs: { ...bare.attrs, id: fresh } });
}
