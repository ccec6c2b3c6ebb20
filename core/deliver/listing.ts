import { parse } from 'parse5';
import { attribute, type HtmlElement, type HtmlNode, textOf } from '../page/html-tree.ts';
import { treeOfParsed } from '../page/parsed-tree.ts';
import type { Difference } from './compare.ts';

/** What was sent of a page for a listing, and where the page stands. */
export interface Listed {
  readonly address: string;
  readonly title: string;
  readonly summary: string;
  readonly photo: { readonly address: string; readonly alt: string } | null;
}

/** A listing as it was found. */
export interface FoundListing {
  readonly html: string;
  readonly base: string;
}

/** A summary of which so much is shown is cut, and not another. In letters. */
const LEAST_SHOWN = 20;

/**
 * What a listing does not say of a page as it was sent: whether it is listed at all, its title, its summary, its picture and what is
 * said of that. What is shown of others is passed over. Linear in the listing.
 */
export function compareListing({ html, base }: FoundListing, sent: Listed): readonly Difference[] {
  const teaser = teaserOf(treeOfParsed(parse(html).childNodes), base, sent.address);
  if (!teaser) return [{ code: 'listing-missing', values: { title: sent.title }, spot: null }];
  const words = plain(textOf(teaser));
  const differences: Difference[] = [];
  if (sent.title !== '' && !words.includes(plain(sent.title)))
    differences.push({ code: 'listing-title', values: { title: sent.title }, spot: null });
  differences.push(...summaryOf(sent.summary, words));
  if (sent.photo) differences.push(...pictureOf(sent.photo, teaser));
  return differences;
}

const plain = (words: string): string => words.replace(/\s+/g, ' ').trim().toLowerCase();

function summaryOf(summary: string, words: string): Difference[] {
  const whole = plain(summary);
  if (whole === '' || words.includes(whole)) return [];
  let shown = whole;
  while (shown.length >= LEAST_SHOWN && !words.includes(shown))
    shown = shown.slice(0, shown.lastIndexOf(' '));
  return shown.length < LEAST_SHOWN
    ? [{ code: 'listing-summary', values: { summary }, spot: null }]
    : [
        {
          code: 'listing-cut',
          values: { last: summary.trim().replace(/\s+/g, ' ').slice(0, shown.length) },
          spot: null,
        },
      ];
}

function pictureOf({ alt }: NonNullable<Listed['photo']>, teaser: HtmlElement): Difference[] {
  const [picture] = elementsNamed(teaser, 'img');
  if (!picture) return [{ code: 'listing-picture', values: { name: alt }, spot: null }];
  return alt !== '' && plain(attribute(picture, 'alt')) !== plain(alt)
    ? [{ code: 'listing-alt', values: { alt, found: attribute(picture, 'alt') }, spot: null }]
    : [];
}

function elementsNamed(node: HtmlElement, name: string): readonly HtmlElement[] {
  return node.children.flatMap((child) =>
    typeof child === 'string' ? [] : [...(child.name === name ? [child] : []), ...elementsNamed(child, name)],
  );
}

/** The largest element that leads to this page and to no other: what a listing shows of it. */
function teaserOf(nodes: readonly HtmlNode[], base: string, address: string): HtmlElement | null {
  const wanted = wholeOf(address, base);
  let found: HtmlElement | null = null;
  /** Where the links in a node lead: to the page alone, to others too, or nowhere. */
  const leads = (node: HtmlNode): 'page' | 'others' | 'nowhere' => {
    if (typeof node === 'string') return 'nowhere';
    const own = node.name === 'a' && attribute(node, 'href') !== '' ? attribute(node, 'href') : null;
    const all = [
      own === null ? 'nowhere' : wholeOf(own, base) === wanted ? 'page' : 'others',
      ...node.children.map(leads),
    ] as const;
    if (all.includes('others')) return 'others';
    if (!all.includes('page')) return 'nowhere';
    // The one round the others is looked at last.
    if (node.name !== 'html' && node.name !== 'body') found = node;
    return 'page';
  };
  for (const node of nodes) leads(node);
  return found;
}

function wholeOf(href: string, base: string): string {
  if (!URL.canParse(href, base)) return href;
  const address = new URL(href, base);
  address.hash = '';
  return address.href.replace(/\/$/, '');
}
