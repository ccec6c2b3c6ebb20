import { parseFragment } from 'parse5';
import {
  attribute,
  elementsIn,
  type HtmlElement,
  type HtmlNode,
  hasClass,
  textOf,
} from '../page/html-tree.ts';
import { treeOfParsed } from '../page/parsed-tree.ts';

/** One thing that is said: what it is, where that is said at all, and its words. `block` is the block of the page it stands in. */
export interface Said {
  readonly block: string | null;
  /** "Heading, level 2"; the empty text for running words. */
  readonly role: string;
  readonly words: string;
  /** How deep it stands in what is said before it: in a list, a group, a figure. */
  readonly depth: number;
}

/**
 * What a page says to those who hear it, in the order of its HTML: by the roles of HTML's elements (W3C HTML-AAM 1.0) and their
 * accessible names (AccName 1.2), in plain words. No one screen reader says it like this; each says this. Folded parts are told as
 * what is in them once they are opened, since that is where the long descriptions are. Linear in the HTML, which is our own.
 */
export function spoken(html: string): readonly Said[] {
  const said: Said[] = [];
  const tree = treeOfParsed(parseFragment(html).childNodes);
  sayAll(tree, { block: null, depth: 0 }, said);
  return said;
}

interface Place {
  readonly block: string | null;
  readonly depth: number;
}

/** Elements in the run of a line (WHATWG HTML, phrasing content). */
const IN_LINES: ReadonlySet<string> = new Set(
  'a abbr b bdi bdo br cite code data dfn em i kbd mark q s samp small span strong sub sup time u var wbr'.split(
    ' ',
  ),
);
const NEVER_SAID: ReadonlySet<string> = new Set(['script', 'style', 'template', 'source', 'track']);

function sayAll(nodes: readonly HtmlNode[], place: Place, said: Said[]): void {
  let line: HtmlNode[] = [];
  const endLine = () => {
    const words = lineOf(line);
    if (words !== '') said.push({ ...place, role: '', words });
    line = [];
  };
  for (const node of nodes) {
    if (typeof node === 'string' || isInLine(node)) line.push(node);
    else {
      endLine();
      sayElement(node, place, said);
    }
  }
  endLine();
}

/** Whether an element belongs to the line it stands in; a link round a whole figure does not. */
function isInLine(node: HtmlElement): boolean {
  if (!IN_LINES.has(node.name)) return false;
  for (const one of elementsIn(node)) if (one !== node && !IN_LINES.has(one.name)) return false;
  return true;
}

function sayElement(node: HtmlElement, around: Place, said: Said[]): void {
  if (NEVER_SAID.has(node.name) || attribute(node, 'aria-hidden') === 'true' || isHidden(node)) return;
  const place = { ...around, block: attribute(node, 'data-block') || around.block };
  const say = (role: string, words: string) => said.push({ ...place, role, words });
  const inside = (nodes: readonly HtmlNode[] = node.children) =>
    sayAll(nodes, { ...place, depth: place.depth + 1 }, said);
  const named = attribute(node, 'aria-label');
  switch (node.name) {
    case 'h1':
    case 'h2':
    case 'h3':
    case 'h4':
    case 'h5':
    case 'h6':
      say(`Heading, level ${node.name.slice(1)}`, lineOf(node.children));
      return;
    case 'img':
      // Without words in `alt` it is passed over (HTML-AAM: img, empty alt).
      if (attribute(node, 'alt') !== '') say('Picture', attribute(node, 'alt'));
      return;
    case 'iframe':
      say('Frame', attribute(node, 'title'));
      return;
    case 'video':
    case 'audio':
      say(node.name === 'video' ? 'Film' : 'Recording', named);
      return;
    case 'button':
      say('Button', named || lineOf(node.children));
      return;
    case 'input':
      say('Control', named);
      return;
    case 'hr':
      say('A line between', '');
      return;
    case 'a':
      sayLink(node, place, said);
      return;
    case 'ul':
    case 'ol': {
      const items = node.children.filter((one) => typeof one !== 'string' && one.name === 'li').length;
      say(items === 1 ? 'List of 1' : `List of ${items}`, named);
      inside();
      return;
    }
    case 'table':
      sayTable(node, place, said);
      return;
    case 'details':
      say('Folded part', lineOf(childrenOf(node, 'summary')));
      inside(node.children.filter((one) => typeof one === 'string' || one.name !== 'summary'));
      return;
    case 'figcaption': {
      const inner: Said[] = [];
      sayAll(node.children, place, inner);
      said.push(
        ...inner.map((one) =>
          one.role === '' && one.depth === place.depth ? { ...one, role: 'Caption' } : one,
        ),
      );
      return;
    }
    case 'blockquote':
      say('Quotation', '');
      inside();
      return;
    case 'aside':
      say('Beside the text', named || lineOf(childrenOf(node, 'h2')));
      inside();
      return;
    case 'nav':
      say('Ways', named);
      inside();
      return;
    case 'pre':
      say('Code', textOf(node).trim());
      return;
    default:
      sayAll(node.children, place, said);
  }
}

const isHidden = ({ attributes }: HtmlElement): boolean => attributes.some(({ name }) => name === 'hidden');

/** A link round more than words is said with all that is in it; a picture alone in one says where it leads by its own words. */
function sayLink(node: HtmlElement, place: Place, said: Said[]): void {
  const inner: Said[] = [];
  sayAll(node.children, place, inner);
  const [only, ...others] = inner;
  if (only && others.length === 0) said.push({ ...only, role: joined('Link', only.role) });
  else {
    said.push({ ...place, role: 'Link', words: attribute(node, 'aria-label') });
    said.push(...inner.map((one) => ({ ...one, depth: one.depth + 1 })));
  }
}

const joined = (one: string, other: string): string =>
  other === '' ? one : `${one}, ${other.toLowerCase()}`;

const childrenOf = (node: HtmlElement, name: string): readonly HtmlNode[] =>
  node.children.filter((one) => typeof one !== 'string' && one.name === name);

/** A table by its rows: each cell with the heading of its column before it, as it is said when the column changes. */
function sayTable(node: HtmlElement, place: Place, said: Said[]): void {
  const rows = [...elementsIn(node)].filter(({ name }) => name === 'tr');
  const cells = rows.map((row) =>
    row.children.flatMap((one) =>
      typeof one === 'string' || (one.name !== 'td' && one.name !== 'th') ? [] : [one],
    ),
  );
  const columns = Math.max(0, ...cells.map(({ length }) => length));
  const [first = []] = cells;
  const isHeaded = first.length > 0 && first.every(({ name }) => name === 'th');
  const heads = isHeaded ? first.map((one) => lineOf(one.children)) : [];
  said.push({
    ...place,
    role: `Table, ${rows.length} ${rows.length === 1 ? 'row' : 'rows'} of ${columns}`,
    words: lineOf(childrenOf(node, 'caption')),
  });
  for (const row of isHeaded ? cells.slice(1) : cells)
    said.push({
      ...place,
      depth: place.depth + 1,
      role: 'Row',
      words: row
        .map((one, at) => [heads[at], lineOf(one.children)].filter(Boolean).join(' '))
        .filter(Boolean)
        .join('; '),
    });
}

/** The words of a line, with what a link, a word in another language or a mark in it is said to be. */
function lineOf(nodes: readonly HtmlNode[]): string {
  return nodes
    .map(inLine)
    .join('')
    .replace(/\s+/g, ' ')
    .replace(/\) ([.,;:!?])/g, ')$1')
    .trim();
}

function inLine(node: HtmlNode): string {
  if (typeof node === 'string') return node;
  if (NEVER_SAID.has(node.name) || attribute(node, 'aria-hidden') === 'true' || isHidden(node)) return '';
  if (node.name === 'br') return ' ';
  if (node.name === 'img')
    return attribute(node, 'alt') === '' ? '' : ` (picture: ${attribute(node, 'alt')}) `;
  const words = attribute(node, 'aria-label') || node.children.map(inLine).join('');
  if (node.name === 'a' && attribute(node, 'href') !== '') return ` (link: ${words.trim()}) `;
  const language = attribute(node, 'lang');
  if (language !== '') return `(in ${language}: ${words.trim()})`;
  if (node.name === 'abbr' && attribute(node, 'title') !== '')
    return `${words} (${attribute(node, 'title')})`;
  return hasClass(node, 'visually-hidden') ? ` ${words}` : words;
}
