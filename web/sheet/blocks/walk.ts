import type { ContentMatch, Node, NodeType, ResolvedPos } from '@tiptap/pm/model';

/** Whether blocks stand in it, as on the page itself; entries of lists hold words, and are part of their list. */
export function holdsBlocks(node: Node): boolean {
  const { firstChild } = node;
  return node.type.name === 'doc' || (isBlock(node) && firstChild !== null && isBlock(firstChild));
}

/** A block of the page, or one that stands in a block of its own kind alone, as a card does. */
const isBlock = ({ type }: Node): boolean => type.isInGroup('block') || type.isInGroup('part');

/** Tells of each block of a document in reading order, what holds others before what it holds, with where it stands. */
export function forEachBlock(doc: Node, tell: (block: Node, pos: number) => void): void {
  walk(doc, 0, tell);
}

function walk(holder: Node, start: number, tell: (block: Node, pos: number) => void): void {
  holder.forEach((block, offset) => {
    tell(block, start + offset);
    if (holdsBlocks(block)) walk(block, start + offset + 1, tell);
  });
}

/**
 * All places between blocks at which a node of a type, or so many of them in a row, may stand, in reading order. The empty
 * line that ends the page is there to write in: what would stand behind it stands before it.
 */
export function placesFor(doc: Node, type: NodeType, count = 1): readonly number[] {
  const places: number[] = [];
  const add = (holder: Node, start: number): void => {
    let at = start;
    for (let index = 0; index <= holder.childCount; index += 1) {
      const isBehindLast = index > 0 && index === holder.childCount && endsInEmptyLine(holder);
      if (!isBehindLast && hasRoom(holder, index, type, count)) places.push(at);
      if (index === holder.childCount) return;
      const block = holder.child(index);
      if (holdsBlocks(block)) add(block, at + 1);
      at += block.nodeSize;
    }
  };
  add(doc, 0);
  return places;
}

function hasRoom(holder: Node, index: number, type: NodeType, count: number): boolean {
  if (count === 1) return holder.canReplaceWith(index, index, type);
  let match: ContentMatch | null = holder.contentMatchAt(index);
  for (let placed = 0; placed < count; placed += 1) match = match?.matchType(type) ?? null;
  return match?.matchFragment(holder.content, index)?.validEnd === true;
}

const endsInEmptyLine = ({ type, lastChild }: Node) =>
  type.name === 'doc' && lastChild?.type.name === 'paragraph' && lastChild.content.size === 0;

/** The last place between blocks at which something is put: before the empty line that ends the page, where there is one. */
export function lastPlace(doc: Node): number {
  return doc.content.size - (endsInEmptyLine(doc) ? (doc.lastChild?.nodeSize ?? 0) : 0);
}

/** The innermost block that a position is in, or null where it stands between the blocks of the page. */
export function blockAround($pos: ResolvedPos): { readonly block: Node; readonly depth: number } | null {
  for (let depth = 1; depth <= $pos.depth; depth += 1) {
    const block = $pos.node(depth);
    if (!holdsBlocks(block) || depth === $pos.depth) return { block, depth };
  }
  return null;
}
