import { factsOut } from '../film/made.ts';
import { CUT_FORMATS } from '../media/formats.ts';
import { messagesFor } from '../messages/messages.ts';
import { creditText } from '../rights/credit.ts';
import { newPlacement } from './blocks/placement/schema.ts';
import { largerFile } from './larger-file.ts';
import { ownFile } from './own-file.ts';
import { fileIdIn, pageIdIn } from './page-address.ts';
import type { Piece } from './piece.ts';
import { altHere, creditHere } from './words.ts';
import type { WriteContext } from './write-context.ts';

/** What leads somewhere, as it goes out. */
interface LinkOut {
  readonly href: string;
  /** The language of what it leads to, where that is another than the page's; empty else. */
  readonly hreflang: string;
  /** The type of the file that it leads to (RFC 6838); empty for what is no file. */
  readonly mime: string;
  /** Whether it is a picture, which opens over the page where there are scripts; what is said of it where it is not seen. */
  readonly larger: { readonly alt: string } | null;
  /** What the link says of that file: its kind, pages and size; empty for what is no file. */
  readonly says: string;
}

export type LinkContext = Pick<WriteContext, 'rules' | 'pages' | 'fileOf' | 'isSource'> &
  Partial<Pick<WriteContext, 'pieces' | 'addressOf'>>;

/** A link as it goes out, or as it is kept for source; null where nobody knows where it leads, so that its words stand there alone. */
export function linkOut(href: string, context: LinkContext): LinkOut | null {
  const { rules, pages, pieces, fileOf, isSource } = context;
  const plain = { hreflang: '', mime: '', larger: null, says: '' };
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
  if (piece?.kind === 'picture') return pictureOut(piece, context);
  const own = piece ? ownFile(piece) : null;
  const address = piece && own ? fileOf?.(own.name, piece.id) : undefined;
  if (!piece || !own || !address) return null;
  const messages = messagesFor(rules.language);
  const says = piece.kind === 'film' ? messages.film(factsOut(piece.stem, piece.extension, piece)) : '';
  return {
    href: address,
    hreflang: '',
    larger: null,
    mime: own.mime,
    says: piece.kind === 'document' ? messages.document(piece.document) : says,
  };
}

/** A picture that words lead to. Its credit is owed wherever it is shown, and stands with the words. */
function pictureOut(piece: Piece, { rules, addressOf }: LinkContext): LinkOut | null {
  const cut = largerFile(rules, piece);
  if (!cut || !addressOf) return null;
  const messages = messagesFor(rules.language);
  const use = newPlacement('link', piece.id);
  const alt = altHere(rules, use, piece);
  const credit = creditText(creditHere(rules, use, piece));
  return {
    href: addressOf(cut),
    hreflang: '',
    mime: CUT_FORMATS[cut.format].mime,
    larger: { alt: alt.kind === 'text' ? alt.text : '' },
    says: [messages.picture, credit.replace(/\.$/, '')].filter(Boolean).join('. '),
  };
}
