import { defaultTreeAdapter, parseFragment, serialize, type DefaultTreeAdapterTypes as Tree } from 'parse5';

/** Hosts whose frames the Reserve site lets through. */
const FRAME_HOSTS = new Set(['lanternreel.localhost', 'fathomchart.localhost', 'corkline.localhost']);
const DROPPED = new Set(['script', 'object', 'embed', 'applet', 'form', 'base', 'meta', 'link']);

/** What the Reserve site's own filter leaves of HTML that is sent to it: no programs, frames of listed hosts only. */
export function filterHtml(html: string): string {
  const root = parseFragment(html);
  const waiting: Tree.ParentNode[] = [root];
  for (let parent = waiting.pop(); parent; parent = waiting.pop()) {
    for (const node of [...parent.childNodes]) {
      if (!('tagName' in node)) continue;
      if (isDropped(node)) {
        defaultTreeAdapter.detachNode(node);
        continue;
      }
      node.attrs = node.attrs.filter(
        ({ name, value }) => !name.startsWith('on') && !/^\s*(javascript|data|vbscript):/i.test(value),
      );
      waiting.push(node);
    }
  }
  return serialize(root);
}

function isDropped(element: Tree.Element): boolean {
  if (DROPPED.has(element.tagName)) return true;
  if (element.tagName !== 'iframe') return false;
  const src = element.attrs.find(({ name }) => name === 'src')?.value ?? '';
  return !URL.canParse(src) || !FRAME_HOSTS.has(new URL(src).hostname);
}
