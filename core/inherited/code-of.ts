import { escapeHtml } from '../page/escape.ts';
import type { HtmlNode } from '../page/html-tree.ts';

const VOID = /^(?:area|base|br|col|embed|hr|img|input|link|meta|param|source|track|wbr)$/;

/** Nodes as code again, with what is in them, to be read as any pasted code is. */
export function codeOf(nodes: readonly HtmlNode[]): string {
  return nodes
    .map((node) => {
      if (typeof node === 'string') return escapeHtml(node);
      const attributes = node.attributes.map(({ name, value }) => ` ${name}="${escapeHtml(value)}"`).join('');
      const start = `<${node.name}${attributes}>`;
      return VOID.test(node.name) ? start : `${start}${codeOf(node.children)}</${node.name}>`;
    })
    .join('');
}
