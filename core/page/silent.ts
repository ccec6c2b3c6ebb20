import { declaredIn } from './declared.ts';
import { attribute, changedNodes, type HtmlElement, type HtmlNode, withChildren } from './html-tree.ts';

const SILENT = new Set(
  'head style meta link title base template colgroup col area source track param wbr noscript datalist'.split(
    ' ',
  ),
);

/** Whether an element of HTML says nothing to a reader of the page that it stands in. */
export function isSilent(name: string): boolean {
  return SILENT.has(name);
}

/** Signs and marks for the eye alone, as pages put them into links to their own headings. */
const SIGNS = new Set('a button i span sup svg'.split(' '));

/** Whether nobody reads an element where it comes from. */
function isHidden(node: HtmlElement): boolean {
  if (node.attributes.length === 0) return false;
  return (
    node.attributes.some(({ name }) => name === 'hidden') ||
    /^none\b/i.test(declaredIn(node).get('display') ?? '') ||
    (SIGNS.has(node.name) && attribute(node, 'aria-hidden') === 'true')
  );
}

/** The same nodes without those that nobody sees where they come from: hidden rows of a sheet are none of a page. Linear. */
export function withoutHidden(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  return changedNodes(nodes, (node) => {
    if (typeof node === 'string') return node;
    return isHidden(node) ? null : withChildren(node, withoutHidden);
  });
}
