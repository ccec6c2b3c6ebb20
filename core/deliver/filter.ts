import { parseFragment, serialize, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import * as v from 'valibot';

const named = (pattern: RegExp, sentence: string) =>
  v.optional(v.pipe(v.array(v.pipe(v.string(), v.regex(pattern, sentence))), v.maxLength(200)), []);

const ELEMENT = /^[a-z][a-z0-9]{0,19}$/;
const ATTRIBUTE = /^(?:[a-z][a-z0-9]{0,19} )?[a-z][a-z0-9-]{0,39}$/;
const PROPERTY = /^(?:[a-z][a-z0-9]{0,19} )?-{0,2}[a-z][a-z0-9-]{0,39}$/;

/**
 * What a site does not keep of the HTML that it takes. What is named nowhere is kept. An attribute or a property of a style is
 * named alone ("class") or of one element ("figure float").
 */
export const FilterSchema = v.strictObject({
  /** Elements that go while what is in them stays. */
  unwrapped: named(ELEMENT, 'An element is written as figure.'),
  /** Elements that go with all that is in them. */
  dropped: named(ELEMENT, 'An element is written as figcaption.'),
  attributes: named(ATTRIBUTE, 'An attribute is written as class, or as img srcset.'),
  styles: named(PROPERTY, 'A style is written as float, or as figure float.'),
});
export type Filter = v.InferOutput<typeof FilterSchema>;

export const KEEPS_ALL: Filter = { unwrapped: [], dropped: [], attributes: [], styles: [] };

export const isKeepingAll = ({ unwrapped, dropped, attributes, styles }: Filter): boolean =>
  unwrapped.length + dropped.length + attributes.length + styles.length === 0;

/** What stands at a site of the HTML that it takes, as its filter says. Linear in the HTML. */
export function keptOf(html: string, filter: Filter): string {
  if (isKeepingAll(filter)) return html;
  const [unwrapped, dropped] = [new Set(filter.unwrapped), new Set(filter.dropped)];
  return changed(html, (node) => {
    if (dropped.has(node.tagName)) return 'dropped';
    node.attrs = keptAttributes(node, filter);
    return unwrapped.has(node.tagName) ? 'unwrapped' : 'kept';
  });
}

function keptAttributes({ tagName, attrs }: Tree.Element, filter: Filter): Tree.Element['attrs'] {
  const isLost = (list: readonly string[], name: string) =>
    list.includes(name) || list.includes(`${tagName} ${name}`);
  return attrs.flatMap((attribute) => {
    if (isLost(filter.attributes, attribute.name)) return [];
    if (attribute.name !== 'style' || filter.styles.length === 0) return [attribute];
    const value = declarationsOf(attribute.value)
      .filter(({ property }) => !isLost(filter.styles, property))
      .map(({ text }) => text)
      .join(';');
    return value === '' ? [] : [{ name: 'style', value }];
  });
}

/** The declarations of a style attribute (CSS Style Attributes, 3): parted by semicolons that stand in no quotes and no brackets. */
export function declarationsOf(
  style: string,
): readonly { readonly property: string; readonly text: string }[] {
  const parts: string[] = [];
  let [from, depth, quote] = [0, 0, ''];
  for (let at = 0; at < style.length; at += 1) {
    const letter = style.charAt(at);
    if (quote !== '') quote = letter === quote ? '' : quote;
    else if (letter === '"' || letter === "'") quote = letter;
    else if (letter === '(') depth += 1;
    else if (letter === ')') depth = Math.max(0, depth - 1);
    else if (letter === ';' && depth === 0) {
      parts.push(style.slice(from, at));
      from = at + 1;
    }
  }
  return [...parts, style.slice(from)].flatMap((part) => {
    const text = part.trim();
    const property = text
      .slice(0, Math.max(0, text.indexOf(':')))
      .trim()
      .toLowerCase();
    return property === '' ? [] : [{ property, text }];
  });
}

/** What is written in the place of an element that would go with all that is in it: the plainest that holds the same. */
const PLAINER: Readonly<Record<string, string>> = {
  aside: 'div',
  blockquote: 'div',
  caption: 'p',
  details: 'div',
  figcaption: 'div',
  figure: 'div',
  li: 'div',
  nav: 'div',
  ol: 'div',
  pre: 'div',
  section: 'div',
  summary: 'p',
  table: 'div',
  tbody: 'div',
  td: 'div',
  th: 'div',
  thead: 'div',
  tr: 'div',
  ul: 'div',
  a: 'span',
  abbr: 'span',
  cite: 'span',
  code: 'span',
  em: 'span',
  picture: 'span',
  small: 'span',
  strong: 'span',
  sub: 'span',
  sup: 'span',
  h2: 'p',
  h3: 'p',
  h4: 'p',
  h5: 'p',
  h6: 'p',
};

/** What may stand in these alone: in another it would be no part of anything. */
const PARENTS: Readonly<Record<string, readonly string[]>> = {
  caption: ['table'],
  figcaption: ['figure'],
  li: ['ul', 'ol'],
  summary: ['details'],
  tbody: ['table'],
  td: ['tr'],
  th: ['tr'],
  thead: ['table'],
  tr: ['thead', 'tbody', 'table'],
};

/** Attributes that any element may have. */
const OF_ALL: ReadonlySet<string> = new Set(['class', 'id', 'lang', 'style', 'title']);

/** The HTML written so that no words go with the elements that a site takes out with all that is in them. */
export function plainerFor(html: string, { dropped }: Pick<Filter, 'dropped'>): string {
  const replaced = new Map(
    dropped.flatMap((name) => {
      const plainer = PLAINER[name];
      return plainer === undefined || dropped.includes(plainer) ? [] : [[name, plainer] as const];
    }),
  );
  if (replaced.size === 0) return html;
  return changed(html, (node) => {
    const plainer = replaced.get(node.tagName) ?? (isOrphan(node) ? PLAINER[node.tagName] : undefined);
    if (plainer === undefined) return 'kept';
    node.nodeName = plainer;
    node.tagName = plainer;
    node.attrs = node.attrs.filter(({ name }) => OF_ALL.has(name));
    return 'kept';
  });
}

/** Whether that in which alone it may stand was written otherwise. */
function isOrphan({ tagName, parentNode }: Tree.Element): boolean {
  const parents = PARENTS[tagName];
  return (
    parents !== undefined && !(parentNode && 'tagName' in parentNode && parents.includes(parentNode.tagName))
  );
}

/**
 * Each element kept, dropped, or put aside for what is in it, by what `judge` says of it once what is round it is judged. By hand: a
 * page may be as deep as it is long.
 */
function changed(html: string, judge: (node: Tree.Element) => 'kept' | 'unwrapped' | 'dropped'): string {
  const root = parseFragment(html);
  const waiting: Level[] = [{ parent: root, nodes: root.childNodes, at: 0 }];
  root.childNodes = [];
  for (let level = waiting.at(-1); level; level = waiting.at(-1)) {
    const node = level.nodes[level.at];
    level.at += 1;
    const { parent } = level;
    if (!node) {
      waiting.pop();
      continue;
    }
    node.parentNode = parent;
    const verdict = 'tagName' in node ? judge(node) : 'kept';
    if (verdict === 'dropped') continue;
    if (verdict === 'kept') parent.childNodes.push(node);
    if (!('tagName' in node)) continue;
    const { childNodes } = node;
    node.childNodes = [];
    waiting.push({ parent: verdict === 'unwrapped' ? parent : node, nodes: childNodes, at: 0 });
  }
  return serialize(root);
}

/** Nodes that are gone through, and what they come to stand in. */
interface Level {
  readonly parent: Tree.ParentNode;
  readonly nodes: readonly Tree.ChildNode[];
  at: number;
}
