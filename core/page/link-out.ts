import { DOCUMENT_FORMATS } from '../document/formats.ts';
import { messagesFor } from '../messages/messages.ts';
import { fileIdIn, pageIdIn } from './page-address.ts';
import type { WriteContext } from './write-context.ts';

/** What leads somewhere, as it goes out. */
interface LinkOut {
  readonly href: string;
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
  const plain = { mime: '', says: '' };
  if (isSource) return { href, ...plain };
  const pageId = pageIdIn(href);
  if (pageId !== null) {
    const address = pages?.get(pageId)?.address;
    return address ? { href: address, ...plain } : null;
  }
  const fileId = fileIdIn(href);
  if (fileId === null) return { href, ...plain };
  const piece = pieces?.get(fileId);
  const address =
    piece?.kind === 'document' ? fileOf?.(`${piece.stem}.${piece.extension}`, piece.id) : undefined;
  if (piece?.kind !== 'document' || !address) return null;
  return {
    href: address,
    mime: DOCUMENT_FORMATS[piece.document.format].mime,
    says: messagesFor(rules.language).document(piece.document),
  };
}
