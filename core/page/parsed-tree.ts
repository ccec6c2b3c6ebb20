import type { DefaultTreeAdapterMap } from 'parse5';
import { type HtmlNode, TREE_DEPTH } from './html-tree.ts';

export type ParsedNode = DefaultTreeAdapterMap['childNode'];

/** A tree that parse5 made, as `read-html.ts` reads it; what is deeper than it reads hangs in the last that is not. */
export function treeOfParsed(nodes: readonly ParsedNode[]): HtmlNode[] {
  const root: HtmlNode[] = [];
  // By hand, and not by calling itself: a page may be as deep as it is long.
  const waiting: { readonly nodes: readonly ParsedNode[]; at: number; into: HtmlNode[]; depth: number }[] = [
    { nodes, at: 0, into: root, depth: 1 },
  ];
  for (let top = waiting.at(-1); top; top = waiting.at(-1)) {
    const node = top.nodes[top.at];
    top.at += 1;
    const { into, depth } = top;
    if (!node) waiting.pop();
    else if (node.nodeName === '#text' && 'value' in node) into.push(node.value);
    else if ('tagName' in node && depth >= TREE_DEPTH)
      waiting.push({ nodes: node.childNodes, at: 0, into, depth });
    else if ('tagName' in node) {
      const children: HtmlNode[] = [];
      into.push({ name: node.tagName, attributes: node.attrs, children });
      waiting.push({ nodes: node.childNodes, at: 0, into: children, depth: depth + 1 });
    }
  }
  return root;
}
