import { MOST_STYLE } from './declared.ts';
import { attribute, changedNodes, type HtmlElement, type HtmlNode, withChildren } from './html-tree.ts';

/** What writing programs say of their classes is at most so long; the rest is not read. */
const MOST_LETTERS = 500_000;

/** What style sheets declare for an element by its name, by a class, or by both: "p", ".note", "p.note". */
export type StyleRules = ReadonlyMap<string, string>;

const SIMPLE = /^(?:[a-z][a-z0-9]{0,20})?(?:\.[\w-]{1,80})?$/i;

/**
 * The rules of style sheets that say what simple selectors mean (CSS 2.2, 4.1.7): programs that write text put their fonts,
 * colours and weights there, and only names of classes on the words. Rules for media, states and what stands in something
 * else are passed over. Linear in the text.
 */
export function styleRules(css: string): StyleRules {
  const rules = new Map<string, string>();
  const text = withoutComments(css.slice(0, MOST_LETTERS));
  let depth = 0;
  let from = 0;
  let selectors = '';
  for (let at = 0; at < text.length; at += 1) {
    const letter = text[at];
    if (letter === '{') {
      if (depth === 0) selectors = text.slice(from, at);
      depth += 1;
      from = at + 1;
    } else if (letter === '}') {
      depth = Math.max(0, depth - 1);
      if (depth === 0 && !selectors.includes('@')) add(rules, selectors, text.slice(from, at));
      from = at + 1;
    }
  }
  return rules;
}

function add(rules: Map<string, string>, selectors: string, style: string): void {
  for (const one of selectors.split(',')) {
    const selector = one.trim();
    if (selector === '' || !SIMPLE.test(selector)) continue;
    const [name = '', kind] = selector.split('.');
    const key = kind === undefined ? name.toLowerCase() : `${name.toLowerCase()}.${kind}`;
    const before = rules.get(key);
    // Of a rule that is said over and over, what an element may have is kept.
    if (before === undefined) rules.set(key, style.slice(0, MOST_STYLE));
    else if (before.length < MOST_STYLE) rules.set(key, `${before};${style.slice(0, MOST_STYLE)}`);
  }
}

/** Without what stands between the marks of comments, of CSS and of the HTML that hides style from old programs. */
function withoutComments(css: string): string {
  const kept: string[] = [];
  let from = 0;
  for (;;) {
    const begin = css.indexOf('/*', from);
    if (begin === -1) break;
    kept.push(css.slice(from, begin));
    const end = css.indexOf('*/', begin + 2);
    if (end === -1) return kept.join('');
    from = end + 2;
  }
  kept.push(css.slice(from));
  return kept.join('').replaceAll('<!--', '').replaceAll('-->', '');
}

/** The same nodes with what the rules say of them in their `style`, before what they say there themselves. */
export function withRules(nodes: readonly HtmlNode[], rules: StyleRules): readonly HtmlNode[] {
  if (rules.size === 0) return nodes;
  return changedNodes(nodes, (node) => (typeof node === 'string' ? node : elementWith(node, rules)));
}

function elementWith(node: HtmlElement, rules: StyleRules): HtmlElement {
  const inside = withChildren(node, (children) => withRules(children, rules));
  const kind = attribute(node, 'class');
  const classes = kind === '' ? [] : kind.split(/\s+/).filter(Boolean);
  const said = [
    rules.get(node.name),
    ...classes.flatMap((one) => [rules.get(`.${one}`), rules.get(`${node.name}.${one}`)]),
  ].filter((style) => style !== undefined);
  if (said.length === 0) return inside;
  const style = [...said, attribute(node, 'style')].join(';');
  const others = node.attributes.filter(({ name }) => name !== 'style');
  return { ...inside, attributes: [...others, { name: 'style', value: style }] };
}
