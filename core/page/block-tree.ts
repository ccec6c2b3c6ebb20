import type { Block } from './blocks/block.ts';
import { kindOf } from './blocks/kinds.ts';
import { blocksIn } from './walk.ts';

/** The page itself, as what holds its blocks. */
export const PAGE = '';

/** One state of a page's blocks, found by ID. */
export interface Tree {
  readonly nodes: ReadonlyMap<string, TreeNode>;
  /** The IDs of what stands in a block, or on the page, in order. */
  readonly order: ReadonlyMap<string, readonly string[]>;
}

export interface TreeNode {
  readonly block: Block;
  /** The block without those in it. */
  readonly own: Block;
  readonly parent: string;
}

/** A state of a page's blocks by ID; of two with the same one the first. */
export function treeOf(blocks: readonly Block[]): Tree {
  const nodes = new Map<string, TreeNode>();
  const order = new Map<string, readonly string[]>();
  const add = (some: readonly Block[], parent: string): void => {
    const fresh = some.filter(({ attrs }) => !nodes.has(attrs.id));
    order.set(
      parent,
      fresh.map(({ attrs }) => attrs.id),
    );
    for (const block of fresh) {
      const { inside } = kindOf(block);
      nodes.set(block.attrs.id, { block, own: inside ? inside.with(block, []) : block, parent });
      if (inside) add(blocksIn(block), block.attrs.id);
    }
  };
  add(blocks, PAGE);
  return { nodes, order };
}
