import { wholeAddress } from './alternates.ts';
import { escapeHtml } from './escape.ts';
import { firstSeen } from './lead.ts';
import type { PageDoc } from './model.ts';
import { planPicture } from './picture.ts';
import { standingsOf } from './walk.ts';
import { altHere } from './words.ts';
import type { WriteContext } from './write-context.ts';

/** What listings, searches and shared links call a page; the empty text where it has no title at all. */
export const headTitleOf = ({ headTitle, title }: Pick<PageDoc, 'headTitle' | 'title'>): string =>
  headTitle?.trim() || title.trim();

/**
 * What the head of a document says of the page to listings and shared links: its summary (WHATWG HTML, 4.2.5.1, "description"), the
 * Open Graph properties, and an `Article` of schema.org as JSON-LD. What nobody has said is left out, and so is what has to be
 * a whole address where it is not known where the page stands.
 */
export function writePageHead(page: PageDoc, context: WriteContext): string {
  const { rules } = context;
  const title = headTitleOf(page);
  const summary = page.summary?.trim() ?? '';
  if (title === '') return '';
  const url = wholeAddress(page.address ?? '', rules.siteAddress);
  const image = url === '' ? null : imageOf(page, context, url);
  const properties = [
    ['og:type', 'article'],
    ['og:title', title],
    ['og:description', summary],
    ['og:url', url],
    ['og:site_name', rules.name],
    ['og:image', image?.url ?? ''],
    ['og:image:alt', image?.alt ?? ''],
  ] as const;
  const article = {
    '@context': 'https://schema.org',
    '@type': 'Article',
    headline: title,
    ...(summary === '' ? {} : { description: summary }),
    inLanguage: rules.language,
    ...(url === '' ? {} : { url }),
    ...(page.keyPhrase ? { keywords: page.keyPhrase } : {}),
    ...(image ? { image: image.url } : {}),
  };
  return [
    ...(summary === '' ? [] : [`<meta name="description" content="${escapeHtml(summary)}">\n`]),
    ...properties.flatMap(([property, content]) =>
      content === '' ? [] : [`<meta property="${property}" content="${escapeHtml(content)}">\n`],
    ),
    // Nothing in it ends the element that it stands in (JSON-LD 1.1, 7).
    `<script type="application/ld+json">${JSON.stringify(article).replaceAll('<', '\\u003c')}</script>\n`,
  ].join('');
}

/** The picture that a shared link shows: what leads the article, or stands first in it. */
function imageOf(page: PageDoc, context: WriteContext, url: string): { url: string; alt: string } | null {
  const placement = firstSeen(page);
  const piece = placement ? context.pieces.get(placement.asset) : undefined;
  if (!placement || piece?.kind !== 'picture') return null;
  const standing = standingsOf(page, context).find((one) => one.placement.id === placement.id);
  if (!standing) return null;
  const { fallback, cutsOf } = planPicture(context.rules, standing, piece);
  const cut = cutsOf(fallback.format).at(-1) ?? fallback;
  const address = context.addressOf(cut);
  // A picture in the page itself has no address to be shared by.
  if (address === '' || address.startsWith('data:') || !URL.canParse(address, url)) return null;
  const alt = altHere(context.rules, placement, piece);
  return { url: new URL(address, url).href, alt: alt.kind === 'text' ? alt.text : '' };
}
