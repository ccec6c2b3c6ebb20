import { attributeText, readMarkup } from '../embed/markup.ts';

/** More is a site, and is brought in section by section. */
const MOST_READ = 5000;

const NO_PAGE =
  /\.(?:jpe?g|png|gif|webp|avif|svg|pdf|docx?|xlsx?|pptx?|od[tsp]|zip|mp[34]|webm|mov|css|js|xml|rss|ics)$/i;

/**
 * The addresses of a section of a site: the entries of a sitemap (sitemaps.org, `loc`), or the links of a page to what lies beside
 * and below it. Each once, in their order, without what is no page. Linear in the text.
 */
export function sectionOf(text: string, base: string): readonly string[] {
  const isMap = /<(?:urlset|sitemapindex)[\s>]/i.test(text.slice(0, 4000));
  const folder = new URL('.', base).href;
  const found = new Set<string>();
  for (const said of isMap ? locations(text) : links(text)) {
    if (found.size >= MOST_READ) break;
    if (!URL.canParse(said, base)) continue;
    const address = new URL(said, base);
    address.hash = '';
    const isOwn = isMap ? /^https?:$/.test(address.protocol) : address.href.startsWith(folder);
    if (isOwn && !NO_PAGE.test(address.pathname)) found.add(address.href);
  }
  return [...found];
}

function* links(html: string): Generator<string, void> {
  for (const tag of readMarkup(html))
    if (tag.kind === 'start' && tag.name === 'a') yield attributeText(tag, 'href');
}

function* locations(xml: string): Generator<string, void> {
  let isLoc = false;
  for (const piece of readMarkup(xml, 'xml'))
    if (piece.kind !== 'text') isLoc = piece.kind === 'start' && piece.name === 'loc';
    else if (isLoc) yield piece.text.trim();
}
