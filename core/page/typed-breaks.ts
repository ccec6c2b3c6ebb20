import { changedNodes, type HtmlElement, type HtmlNode, withChildren } from './html-tree.ts';

/** What stands where two lines were broken in a row: it parts what is before it from what is behind it, and says nothing. */
const PARTED: HtmlElement = { name: 'div', attributes: [], children: [] };

/** The same nodes with paragraphs where a text was parted by two broken lines, as mail and old pages part it. Linear. */
export function withTypedBreaks(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  const inside = changedNodes(nodes, (node) =>
    typeof node === 'string' || node.name === 'pre' ? node : withChildren(node, withTypedBreaks),
  );
  return inside.some(isBreak) ? parted(inside) : inside;
}

const isBreak = (node: HtmlNode): boolean => typeof node !== 'string' && node.name === 'br';

function parted(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  const out: HtmlNode[] = [];
  let lastBreak = -1;
  for (const node of nodes) {
    if (isBreak(node)) {
      if (lastBreak >= 0) out.splice(lastBreak, out.length, PARTED);
      else out.push(node);
      lastBreak = out.length - 1;
      continue;
    }
    if (typeof node !== 'string' || node.trim() !== '') lastBreak = -1;
    out.push(node);
  }
  return out;
}
