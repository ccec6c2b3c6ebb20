import { escapeHtml } from './escape.ts';

/** A page as it stands in one language. */
export interface Alternate {
  readonly language: string;
  /** Its whole web address; empty while nobody has said where it stands. */
  readonly href: string;
}

/**
 * The same page in other languages, for the head of a document (WHATWG HTML, 4.6.7.1 link type "alternate", with `hreflang` as
 * BCP 47 has it): one link for each that has an address, and nothing where none has.
 */
export function writeAlternates(pages: readonly Alternate[]): string {
  return pages
    .filter(({ href }) => href !== '')
    .map(
      ({ language, href }) =>
        `<link rel="alternate" hreflang="${escapeHtml(language)}" href="${escapeHtml(href)}">\n`,
    )
    .join('');
}

/** Where a page stands, as a whole web address: that of a path is found on its site; empty where one of them is not known. */
export function wholeAddress(address: string, site: string): string {
  if (address === '' || URL.canParse(address)) return address;
  return URL.canParse(address, site) ? new URL(address, site).href : '';
}
