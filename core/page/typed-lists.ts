import { declaredIn } from './declared.ts';
import { changedNodes, type HtmlElement, type HtmlNode, textOf, withChildren } from './html-tree.ts';
import { isBlockElement } from './look.ts';

/** How deep programs number their lists. */
const MOST_LEVEL = 9;

/** One paragraph that its program drew as an entry of a list. */
interface Entry {
  readonly level: number;
  /** The number that it begins with; null for a bullet. */
  readonly number: number | null;
  readonly item: Item;
  /** The paragraph that it was, where somebody typed its sign. */
  readonly typed?: HtmlElement;
}

interface Item extends HtmlElement {
  readonly children: HtmlNode[];
}

/**
 * The same nodes with lists where paragraphs only look like one. A word processor says in a property of its own which list
 * and level they are of (`…-list: l0 level1 lfo1`), and that their bullet or number is to be passed over (`…-list: Ignore`);
 * in mail, people type a hyphen or a number before each of several lines. Linear in the nodes.
 */
export function withTypedLists(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  return nodes.some((node) => typeof node !== 'string' && LINES.test(node.name) && isEntry(node))
    ? listed(nodes)
    : changedNodes(nodes, (node) => (typeof node === 'string' ? node : withChildren(node, withTypedLists)));
}

const LINES = /^(?:p|div)$/;

const isEntry = (node: HtmlElement): boolean => listValue(node) !== null || typedEntry(node) !== null;

function listed(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  const out: HtmlNode[] = [];
  let entries: Entry[] = [];
  const end = (): void => {
    const [first] = entries;
    // One line that begins with a hyphen is no list.
    if (first?.typed && entries.length === 1) out.push(first.typed);
    else if (first) out.push(...listsOf(entries));
    entries = [];
  };
  for (const node of nodes) {
    if (typeof node === 'string') {
      if (node.trim() !== '') end();
      if (entries.length === 0) out.push(node);
      continue;
    }
    const entry = entryOf(node) ?? typedEntry(node);
    if (entry) {
      if (Boolean(entry.typed) !== Boolean(entries[0]?.typed)) end();
      entries.push(entry);
    } else {
      end();
      out.push(withChildren(node, withTypedLists));
    }
  }
  end();
  return out;
}

/** The value of a program's own property for lists, by whatever prefix it goes. */
function listValue(node: HtmlElement): string | null {
  for (const [name, value] of declaredIn(node)) if (/^-?[a-z]{1,12}-list$/.test(name)) return value;
  return null;
}

function entryOf(node: HtmlElement): Entry | null {
  if (!LINES.test(node.name)) return null;
  const said = listValue(node);
  const level = Number(/\blevel(\d{1,2})\b/i.exec(said ?? '')?.[1]);
  if (!said || !(level >= 1)) return null;
  const marks: string[] = [];
  const children = withoutMarker(node.children, marks);
  const number = numberOf(marks.join(''));
  const attributes = node.attributes.filter((one) => one.name === 'style');
  return {
    level: Math.min(level, MOST_LEVEL),
    number,
    item: { name: 'li', attributes, children: [...children] },
  };
}

/** The children without what is only drawn before an entry, which is put to the `marks`. */
function withoutMarker(children: readonly HtmlNode[], marks: string[]): readonly HtmlNode[] {
  return children.flatMap((child): readonly HtmlNode[] => {
    if (typeof child === 'string') return [child];
    if (/^ignore$/i.test(listValue(child) ?? '')) {
      marks.push(textOf(child));
      return [];
    }
    return [{ ...child, children: withoutMarker(child.children, marks) }];
  });
}

/** What people type before a line to make it an entry of a list: a bullet, a hyphen, a number. */
const SIGN = /^\s*(?:[-•·*]|(\d{1,3})[.)])[\s\u00a0]+(?=\S|$)/u;

/** The sign that the first text of a line begins with; null for none, or where nothing stands behind it. */
export function signOf(text: string, isMoreBehind: boolean): RegExpExecArray | null {
  const sign = SIGN.exec(text.slice(0, 40));
  return sign && (isMoreBehind || text.length > sign[0].length) ? sign : null;
}

/** A line that begins with a bullet or a number which somebody typed. */
function typedEntry(node: HtmlElement): Entry | null {
  if (!LINES.test(node.name)) return null;
  const [first, ...others] = node.children;
  const sign = typeof first === 'string' ? signOf(first, others.length > 0) : null;
  const isLine = others.every((child) => typeof child === 'string' || !isBlockElement(child.name));
  if (typeof first !== 'string' || !sign || !isLine) return null;
  const item = {
    name: 'li',
    attributes: node.attributes,
    children: [first.slice(sign[0].length), ...others],
  };
  return { level: 1, number: sign[1] === undefined ? null : Number(sign[1]), item, typed: node };
}

/** The number that an entry is counted by: figures, letters or Roman numerals before a point or a bracket. */
function numberOf(marker: string): number | null {
  const said = /^[\s(]*(\d{1,4}|[a-z]{1,6})\s*[.)]/i.exec(marker.replaceAll('\u00a0', ' '))?.[1];
  if (said === undefined) return null;
  return /^\d/.test(said) ? Number(said) : 1;
}

/** Entries in lists, each deeper one in the entry before it. */
function listsOf(entries: readonly Entry[]): readonly HtmlElement[] {
  const lists: HtmlElement[] = [];
  let at = 0;
  while (at < entries.length) {
    const [list, next] = listFrom(entries, at, 1);
    lists.push(list);
    at = next;
  }
  return lists;
}

/** The list that begins with an entry, and the first entry that is not in it. */
function listFrom(entries: readonly Entry[], from: number, depth: number): [HtmlElement, number] {
  const first = entries[from];
  const level = first?.level ?? 1;
  const isNumbered = (first?.number ?? null) !== null;
  const items: Item[] = [];
  let at = from;
  for (let entry = entries[at]; entry && entry.level >= level; entry = entries[at]) {
    const last = items.at(-1);
    if (entry.level > level && last && depth < MOST_LEVEL) {
      const [inner, next] = listFrom(entries, at, depth + 1);
      last.children.push(inner);
      at = next;
    } else if (entry.level === level && items.length > 0 && (entry.number !== null) !== isNumbered) break;
    else {
      items.push(entry.item);
      at += 1;
    }
  }
  const start = first?.number ?? 1;
  const attributes = isNumbered && start > 1 ? [{ name: 'start', value: String(start) }] : [];
  return [{ name: isNumbered ? 'ol' : 'ul', attributes, children: items }, at];
}
