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

/** All elements in it in their order, itself first. By hand: to ask each of 200 nested generators for the next took half as long again. */
export function* elementsIn(node: HtmlNode): Generator<HtmlElement, void> {
  if (typeof node === 'string') return;
  const waiting: HtmlElement[] = [node];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    yield next;
    for (let at = next.children.length - 1; at >= 0; at -= 1) {
      const child = next.children[at];
      if (child !== undefined && typeof child !== 'string') waiting.push(child);
    }
  }
}

/** Whether an element has a class (WHATWG HTML, 3.2.6). */
export function hasClass(node: HtmlElement, name: string): boolean {
  return attribute(node, 'class').split(/\s+/).includes(name);
}

/** An element with its children changed; the very same where none did, so that what nothing happens to is not copied. */
export function withChildren(
  node: HtmlElement,
  change: (children: readonly HtmlNode[]) => readonly HtmlNode[],
): HtmlElement {
  if (node.children.length === 0) return node;
  const children = change(node.children);
  return children === node.children ? node : { ...node, children };
}

/** Each node changed into another, or into none; the very same list where none was. */
export function changedNodes(
  nodes: readonly HtmlNode[],
  change: (node: HtmlNode) => HtmlNode | null,
): readonly HtmlNode[] {
  let out: HtmlNode[] | null = null;
  for (const [at, node] of nodes.entries()) {
    const changed = change(node);
    if (changed !== node) out ??= nodes.slice(0, at);
    if (out && changed !== null) out.push(changed);
  }
  return out ?? nodes;
}
