import { DOCUMENT_FORMATS } from '../document/formats.ts';
import { messagesFor } from '../messages/messages.ts';
import { fileIdIn, pageIdIn } from './page-address.ts';
import type { WriteContext } from './write-context.ts';

/** What leads somewhere, as it goes out. */
interface LinkOut {
  readonly href: string;
  /** The language of what it leads to, where that is another than the page's; empty else. */
  readonly hreflang: string;
  /** The type of the file that it leads to (RFC 6838); empty for what is no file. */
  readonly mime: string;
  /** What the link says of that file: its kind, pages and size; empty for what is no file. */
  readonly says: string;
}

export type LinkContext = Pick<WriteContext, 'rules' | 'pages' | 'fileOf' | 'isSource'> &
  Partial<Pick<WriteContext, 'pieces'>>;

/** A link as it goes out, or as it is kept for source; null where nobody knows where it leads, so that its words stand there alone. */
export function linkOut(href: string, context: LinkContext): LinkOut | null {
  const { rules, pages, pieces, fileOf, isSource } = context;
  const plain = { hreflang: '', mime: '', says: '' };
  if (isSource) return { href, ...plain };
  const pageId = pageIdIn(href);
  if (pageId !== null) {
    const page = pages?.get(pageId);
    if (!page?.address) return null;
    const hreflang = page.language === rules.language ? '' : (page.language ?? '');
    return { href: page.address, ...plain, hreflang };
  }
  const fileId = fileIdIn(href);
  if (fileId === null) return { href, ...plain };
  const piece = pieces?.get(fileId);
  const address =
    piece?.kind === 'document' ? fileOf?.(`${piece.stem}.${piece.extension}`, piece.id) : undefined;
  if (piece?.kind !== 'document' || !address) return null;
  return {
    href: address,
    hreflang: '',
    mime: DOCUMENT_FORMATS[piece.document.format].mime,
    says: messagesFor(rules.language).document(piece.document),
  };
}
