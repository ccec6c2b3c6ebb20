import * as v from 'valibot';
import { isWebAddress } from '../rights/web-address.ts';

/** Another page that a page may link to. */
interface LinkedPage {
  readonly title: string;
  /** Where it stands on its site; empty while nobody has said so. */
  readonly address: string;
  /** The language that it is in (BCP 47), where that is known. */
  readonly language?: string;
}

export type LinkedPages = ReadonlyMap<string, LinkedPage>;

/** Where a page stands on its site: a web address, or a path there. */
export const PageAddressSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(2000, 'An address is at most 2,000 letters long.'),
  v.check(
    (address) => isWebAddress(address) || /^\/(?!\/)[^\s<>"\\]*$/.test(address),
    'An address begins with https://, http:// or /.',
  ),
);

/** The address by which a link leads to another page of Placard, whatever it is called and wherever it stands. */
export const pageHref = (pageId: string) => `page:${pageId}`;

/** The address by which a link leads to the file of a document on the shelf. */
export const fileHref = (assetId: string) => `file:${assetId}`;

/** The ID of the page that an address leads to; null for every other address. */
export function pageIdIn(href: string): string | null {
  return /^page:([A-Za-z0-9-]{1,64})$/.exec(href)?.[1] ?? null;
}

/** The ID of the document whose file an address leads to; null for every other address. */
export function fileIdIn(href: string): string | null {
  return /^file:([A-Za-z0-9-]{1,64})$/.exec(href)?.[1] ?? null;
}
