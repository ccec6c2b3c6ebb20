/** An element of HTML that somebody else parsed: a browser where text is pasted, a parser where a page is brought in. */
export interface HtmlElement {
  /** In small letters. */
  readonly name: string;
  readonly attributes: readonly { readonly name: string; readonly value: string }[];
  readonly children: readonly HtmlNode[];
}

export type HtmlNode = string | HtmlElement;

/** Elements are read at most so deep; whoever makes a tree hangs what is deeper into the last of these. */
export const TREE_DEPTH = 200;

export function attribute({ attributes }: HtmlElement, name: string): string {
  return attributes.find((one) => one.name === name)?.value ?? '';
}

/** All text in it, as it stands. */
export function textOf(node: HtmlNode): string {
  return typeof node === 'string' ? node : node.children.map(textOf).join('');
}

export function* elementsIn(node: HtmlNode): Generator<HtmlElement, void> {
  if (typeof node === 'string') return;
  yield node;
  for (const child of node.children) yield* elementsIn(child);
}

/** Whether an element has a class (WHATWG HTML, 3.2.6). */
export function hasClass(node: HtmlElement, name: string): boolean {
  return attribute(node, 'class').split(/\s+/).includes(name);
}
