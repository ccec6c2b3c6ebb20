import { declaredIn } from './declared.ts';
import { attribute, changedNodes, type HtmlElement, type HtmlNode, withChildren } from './html-tree.ts';
import { isBoldIn } from './look.ts';

/**
 * The same nodes with header cells in the first row of each table that has none, where its words are bold and those below are
 * not: how programs draw what a column is about. Tables that hold tables lay out a page, and stay. Linear in the nodes.
 */
export function withHeadRows(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  return changeIn(nodes).nodes;
}

interface Changed {
  readonly nodes: readonly HtmlNode[];
  readonly hasTable: boolean;
}

function changeIn(nodes: readonly HtmlNode[]): Changed {
  let hasTable = false;
  const changed = changedNodes(nodes, (node) => {
    if (typeof node === 'string') return node;
    let holdsTable = false;
    const inside = withChildren(node, (children) => {
      const read = changeIn(children);
      holdsTable = read.hasTable;
      return read.nodes;
    });
    const isTable = node.name === 'table';
    hasTable ||= isTable || holdsTable;
    return isTable && !holdsTable ? headed(inside) : inside;
  });
  return { nodes: changed, hasTable };
}

function headed(table: HtmlElement): HtmlElement {
  const rows = rowsIn(table);
  const [first, ...others] = rows;
  const cells = first ? cellsIn(first) : [];
  const hasHead = rows.some((row) => cellsIn(row).some(({ name }) => name === 'th'));
  const isHead = !hasHead && cells.length > 1 && saysAllBold(cells) && !saysAllBold(others);
  if (!first || !isHead) return table;
  const head = {
    ...first,
    children: first.children.map((cell) =>
      typeof cell !== 'string' && cell.name === 'td' ? { ...unbold(cell), name: 'th' } : cell,
    ),
  };
  return replaced(table, first, head);
}

/** An element with its words in the weight of those round it: letters that only made a cell look like a header say no more. */
function unbold(node: HtmlElement): HtmlElement {
  const { attributes, children } = node;
  const style = `${attribute(node, 'style')};font-weight:normal`;
  return {
    name: node.name,
    attributes: [...attributes.filter(({ name }) => name !== 'style'), { name: 'style', value: style }],
    children: children.map((child) => (typeof child === 'string' ? child : unbold(child))),
  };
}

/** Whether words stand in these, and all of them bold. */
function saysAllBold(nodes: readonly HtmlNode[]): boolean {
  const weights = nodes.map((node) => weightOf(node, false));
  return weights.includes('bold') && !weights.includes('plain');
}

/** How the words in a node are set: bold, or some of them plain; null where it has none. */
function weightOf(node: HtmlNode, around: boolean): 'bold' | 'plain' | null {
  if (typeof node === 'string') return node.trim() === '' ? null : around ? 'bold' : 'plain';
  const isBold = isBoldIn(node, declaredIn(node), around);
  let weight: 'bold' | null = null;
  for (const child of node.children) {
    const inside = weightOf(child, isBold);
    if (inside === 'plain') return 'plain';
    weight ??= inside;
  }
  return weight;
}

const rowsIn = (part: HtmlElement): readonly HtmlElement[] =>
  part.children.flatMap((child) => {
    if (typeof child === 'string') return [];
    if (child.name === 'tr') return [child];
    return /^t(?:head|body|foot)$/.test(child.name) ? rowsIn(child) : [];
  });

const cellsIn = ({ children }: HtmlElement): readonly HtmlElement[] =>
  children.flatMap((child) => (typeof child !== 'string' && /^t[dh]$/.test(child.name) ? [child] : []));

function replaced(node: HtmlElement, old: HtmlElement, next: HtmlElement): HtmlElement {
  const children = node.children.map((child) => {
    if (child === old) return next;
    return typeof child !== 'string' && /^t(?:head|body|foot)$/.test(child.name)
      ? replaced(child, old, next)
      : child;
  });
  return { ...node, children };
}
