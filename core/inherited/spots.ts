import { parse, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import { attribute, type HtmlElement } from '../page/html-tree.ts';

/** The attribute by which an element is known again wherever the same document is parsed. */
const SPOT = 'data-spot';

/**
 * A document in which each element carries its place among all of them, in their order: what is found in it can be marked where
 * the document is looked at. Linear in its length; never runs nor loads anything.
 */
export function parseWithSpots(html: string): Tree.Document {
  const document = parse(html, { scriptingEnabled: false });
  const waiting: Tree.ParentNode[] = [document];
  let count = 0;
  for (let parent = waiting.pop(); parent; parent = waiting.pop()) {
    if ('tagName' in parent) {
      parent.attrs = [...parent.attrs.filter(({ name }) => name !== SPOT), { name: SPOT, value: `${count}` }];
      count += 1;
    }
    // The last to be put in is the next to be looked at: so they come in the order of the document.
    for (let at = parent.childNodes.length - 1; at >= 0; at -= 1) {
      const child = parent.childNodes[at];
      if (child && 'tagName' in child) waiting.push(child);
    }
  }
  return document;
}

/** The place of an element in its document; -1 for one that was put in since. */
export function spotOf(node: HtmlElement): number {
  const said = attribute(node, SPOT);
  return said === '' ? -1 : Number(said);
}

/** The place that a parsed element carries. */
export function spotOfParsed({ attrs }: Tree.Element): number {
  return Number(attrs.find(({ name }) => name === SPOT)?.value ?? -1);
}
