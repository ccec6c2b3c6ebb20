import {
  defaultTreeAdapter,
  html as names,
  parse,
  serialize,
  type DefaultTreeAdapterTypes as Tree,
} from 'parse5';
import { parseWithSpots, spotOfParsed } from '../inherited/spots.ts';

/** What would run, lead away or load other than the page itself. */
const NOT_SHOWN: ReadonlySet<string> = new Set(['script', 'base', 'object', 'embed', 'applet']);

/** What is deeper is no page that anybody looks at, and writing it out would not come back from there. */
const DEEPEST = 500;

/**
 * A document of somebody else, to be looked at in a frame: nothing of it runs, addresses are read from `base`, its pictures
 * and headings carry the names (`data-block`) that `Spot` counts them by, and `head` stands at the end of its head.
 */
export function shownDocument(html: string, base: string, head: string, marking?: Marking): string {
  const document = marking ? parseWithSpots(html) : parse(html);
  const marked = new Set(marking?.spots);
  const counts = { picture: 0, heading: 0 };
  const waiting: { readonly parent: Tree.ParentNode; readonly depth: number }[] = [
    { parent: document, depth: 0 },
  ];
  let headElement: Tree.Element | null = null;
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { parent, depth } = next;
    for (const node of [...parent.childNodes]) {
      if (!('tagName' in node)) continue;
      if (NOT_SHOWN.has(node.tagName) || isRefresh(node) || depth > DEEPEST) {
        defaultTreeAdapter.detachNode(node);
        continue;
      }
      if (node.tagName === 'head') headElement ??= node;
      const spot = marking ? spotOfParsed(node) : -1;
      node.attrs = node.attrs.filter(({ name }) => !/^on/i.test(name) && !/^data-(?:block|spot)$/.test(name));
      if (marking) mark(node, base, marking.pictures, marked.has(spot) ? spot : null);
    }
    // The last to be put in is the next to be looked at: so they come in the order of the document.
    for (const node of [...parent.childNodes].reverse())
      if ('tagName' in node) waiting.push({ parent: node, depth: depth + 1 });
    if (!('tagName' in parent) || marking) continue;
    const kind = parent.tagName === 'img' ? 'picture' : /^h[1-6]$/.test(parent.tagName) ? 'heading' : null;
    if (kind === null) continue;
    parent.attrs.push({ name: 'data-block', value: `${kind} ${counts[kind]}` });
    counts[kind] += 1;
  }
  if (headElement) {
    const element = defaultTreeAdapter.createElement('base', names.NS.HTML, [{ name: 'href', value: base }]);
    const [first] = headElement.childNodes;
    if (first) defaultTreeAdapter.insertBefore(headElement, element, first);
    else defaultTreeAdapter.appendChild(headElement, element);
  }
  return serialize(document).replace('</head>', () => `${head}</head>`);
}

/** How a document that is marked by its spots (`inherited/spots.ts`) is shown. */
export interface Marking {
  /** The elements that carry a name (`spot N`). */
  readonly spots: readonly number[];
  /** Where the pictures of the document can be looked at, by their whole addresses. */
  readonly pictures: Readonly<Record<string, string>>;
}

function mark(node: Tree.Element, base: string, pictures: Marking['pictures'], spot: number | null): void {
  // A picture that waits for a program is named in an attribute of that program's.
  const named =
    node.tagName === 'img' ? node.attrs.flatMap(({ value }) => shownAt(value, base, pictures)) : [];
  const [src] = named;
  if (src !== undefined)
    node.attrs = [
      ...node.attrs.filter(({ name }) => !/^(?:src|srcset|sizes|loading)$/.test(name)),
      { name: 'src', value: src },
    ];
  if (spot !== null) node.attrs.push({ name: 'data-block', value: `spot ${spot}` });
}

function shownAt(address: string, base: string, pictures: Marking['pictures']): readonly string[] {
  const shown = URL.canParse(address, base) ? pictures[new URL(address, base).href] : undefined;
  return shown === undefined ? [] : [shown];
}

/** A document that leads on by itself after a while (WHATWG HTML, 4.2.5.3). */
const isRefresh = ({ tagName, attrs }: Tree.Element): boolean =>
  tagName === 'meta' && attrs.some(({ name, value }) => name === 'http-equiv' && /refresh/i.test(value));
