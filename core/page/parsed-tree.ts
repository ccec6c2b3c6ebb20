import type { DefaultTreeAdapterMap } from 'parse5';
import { type HtmlNode, TREE_DEPTH } from './html-tree.ts';

export type ParsedNode = DefaultTreeAdapterMap['childNode'];

/** A tree that parse5 made, as `read-html.ts` reads it; what is deeper than it reads hangs in the last that is not. */
export function treeOfParsed(nodes: readonly ParsedNode[], depth = 1): HtmlNode[] {
  return nodes.flatMap((node): HtmlNode[] => {
    if (node.nodeName === '#text' && 'value' in node) return [node.value];
    if (!('tagName' in node)) return [];
    const children = treeOfParsed(node.childNodes, depth + 1);
    if (depth >= TREE_DEPTH) return children;
    return [{ name: node.tagName, attributes: node.attrs, children }];
  });
}
