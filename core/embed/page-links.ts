import { attributeText, readMarkup } from './markup.ts';

const LINK_LIMIT = 2000;
const ADDRESS_LIMIT = 2000;

/** Every link of a page to its own host, each once, as whole addresses. Linear in its length. */
export function pageLinks(html: string, base: string): readonly string[] {
  const links = new Set<string>();
  for (const tag of readMarkup(html)) {
    const href = tag.kind === 'start' && tag.name === 'a' ? attributeText(tag, 'href') : '';
    if (href === '' || href.length > ADDRESS_LIMIT || !URL.canParse(href, base)) continue;
    const link = new URL(href, base);
    if (link.host === new URL(base).host && links.size < LINK_LIMIT) links.add(link.href);
  }
  return [...links];
}
