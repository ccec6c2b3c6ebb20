import { type HtmlElement, type HtmlNode, withChildren } from './html-tree.ts';
import { isBlockElement } from './look.ts';
import { signOf } from './typed-lists.ts';

/** Two lines with a sign each are a list; one is a line that begins with a hyphen. */
const LEAST_ENTRIES = 2;

interface Line {
  readonly nodes: readonly HtmlNode[];
  /** Whether it begins with a bullet or a number that somebody typed. */
  readonly isEntry: boolean;
}

/**
 * The same nodes with each line of a typed list in a paragraph of its own, where its lines were only broken (`- one<br>- two`), as old
 * pages and mail write them: `withTypedLists` then makes a list of them. Other lines stay together. Linear in the nodes.
 */
export function withLinesApart(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  let isChanged = false;
  const inside = nodes.flatMap((node): readonly HtmlNode[] => {
    if (typeof node === 'string' || node.name === 'pre') return [node];
    const children = withLinesApart(node.children);
    if (children === node.children) return [node];
    isChanged = true;
    return node.name === 'p'
      ? children.map((child) => looking(child, node))
      : [withChildren(node, () => children)];
  });
  const kept = isChanged ? inside : nodes;
  return kept.some(isBreak) ? apart(kept) : kept;
}

/** A line that was taken out of a paragraph looks as that did. */
const looking = (node: HtmlNode, { attributes }: HtmlElement): HtmlNode =>
  isParagraph(node) && typeof node !== 'string' ? { ...node, attributes } : node;

const isBreak = (node: HtmlNode): boolean => typeof node !== 'string' && node.name === 'br';
const isParagraph = (node: HtmlNode): boolean => typeof node !== 'string' && node.name === 'p';
const isBlock = (node: HtmlNode): boolean => typeof node !== 'string' && isBlockElement(node.name);

/** Runs of lines between blocks, each with its typed lists taken apart. */
function apart(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  const out: HtmlNode[] = [];
  let run: HtmlNode[] = [];
  const end = () => {
    out.push(...runApart(run));
    run = [];
  };
  for (const node of nodes) {
    if (!isBlock(node)) {
      run.push(node);
      continue;
    }
    end();
    out.push(node);
  }
  end();
  return out.length === nodes.length && out.every((node, at) => node === nodes[at]) ? nodes : out;
}

function runApart(run: readonly HtmlNode[]): readonly HtmlNode[] {
  const lines = linesOf(run);
  const lists = listsIn(lines);
  if (!lists.some(Boolean)) return run;
  const out: HtmlNode[] = [];
  let others: (readonly HtmlNode[])[] = [];
  const end = () => {
    if (others.length > 0) out.push(paragraph(joined(others)));
    others = [];
  };
  lines.forEach(({ nodes }, at) => {
    if (!lists[at]) {
      if (nodes.some(saysSomething)) others.push(nodes);
      return;
    }
    end();
    out.push(paragraph(nodes));
  });
  end();
  return out;
}

const saysSomething = (node: HtmlNode): boolean => typeof node !== 'string' || node.trim() !== '';

const paragraph = (children: readonly HtmlNode[]): HtmlElement => ({ name: 'p', attributes: [], children });

const BREAK: HtmlElement = { name: 'br', attributes: [], children: [] };

const joined = (lines: readonly (readonly HtmlNode[])[]): readonly HtmlNode[] =>
  lines.flatMap((line, at) => (at === 0 ? line : [BREAK, ...line]));

function linesOf(run: readonly HtmlNode[]): readonly Line[] {
  const lines: HtmlNode[][] = [[]];
  for (const node of run) {
    if (isBreak(node)) lines.push([]);
    else lines.at(-1)?.push(node);
  }
  return lines.map((nodes) => {
    const [first] = nodes;
    return { nodes, isEntry: typeof first === 'string' && signOf(first, nodes.length > 1) !== null };
  });
}

/** For each line, whether it is of a list: of two entries or more one after the other. */
function listsIn(lines: readonly Line[]): readonly boolean[] {
  const inList: boolean[] = lines.map(() => false);
  let from = 0;
  while (from < lines.length) {
    let to = from;
    while (lines[to]?.isEntry) to += 1;
    if (to - from >= LEAST_ENTRIES) inList.fill(true, from, to);
    from = Math.max(to, from) + 1;
  }
  return inList;
}
