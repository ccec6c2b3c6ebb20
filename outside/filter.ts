import { defaultTreeAdapter, parseFragment, serialize, type DefaultTreeAdapterTypes as Tree } from 'parse5';

/** What a site lets through of the HTML that is sent to it. */
export interface Filter {
  /** Hosts whose frames come through. */
  readonly frameHosts: readonly string[];
  /** Elements that go with all that is in them. */
  readonly dropped: readonly string[];
  /** Elements that go while what is in them stays. */
  readonly unwrapped?: readonly string[];
  /** Attributes that go. */
  readonly attributes?: readonly string[];
}

const ALWAYS_DROPPED = ['script', 'object', 'embed', 'applet', 'form', 'base', 'meta', 'link'];

/** The Reserve site: no programs, frames of listed hosts only. */
export const RESERVE_FILTER: Filter = {
  frameHosts: ['lanternreel.localhost', 'fathomchart.localhost', 'corkline.localhost'],
  dropped: ALWAYS_DROPPED,
};

/** The Members' bulletin is read in mail programs too: no frames, no classes, and of figures only what is in them. */
export const BULLETIN_FILTER: Filter = {
  frameHosts: [],
  dropped: [...ALWAYS_DROPPED, 'figcaption', 'details', 'source', 'video', 'audio'],
  unwrapped: ['figure', 'picture'],
  attributes: ['class', 'id', 'srcset', 'sizes'],
};

export function filterHtml(html: string, filter: Filter): string {
  const root = parseFragment(html);
  const waiting: Tree.ParentNode[] = [root];
  for (let parent = waiting.pop(); parent; parent = waiting.pop()) {
    for (const node of [...parent.childNodes]) {
      if (!('tagName' in node)) continue;
      if (isDropped(node, filter)) {
        defaultTreeAdapter.detachNode(node);
        continue;
      }
      node.attrs = node.attrs.filter(
        ({ name, value }) =>
          !name.startsWith('on') &&
          !/^\s*(javascript|data|vbscript):/i.test(value) &&
          !filter.attributes?.includes(name),
      );
      waiting.push(node);
      if (!filter.unwrapped?.includes(node.tagName)) continue;
      for (const child of [...node.childNodes]) {
        defaultTreeAdapter.detachNode(child);
        defaultTreeAdapter.insertBefore(parent, child, node);
      }
      defaultTreeAdapter.detachNode(node);
      // What came out of it has not been looked at yet.
      waiting.push(parent);
    }
  }
  return serialize(root);
}

function isDropped(element: Tree.Element, { dropped, frameHosts }: Filter): boolean {
  if (dropped.includes(element.tagName)) return true;
  if (element.tagName !== 'iframe') return false;
  const src = element.attrs.find(({ name }) => name === 'src')?.value ?? '';
  return !URL.canParse(src) || !frameHosts.includes(new URL(src).hostname);
}
