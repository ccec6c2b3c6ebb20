import { DOCUMENT_FORMATS } from '../document/formats.ts';
import { FILM_FORMATS } from '../film/facts.ts';
import type { OfKind } from './piece.ts';

/** The type of the file that a piece has besides the picture that shows it; null for a picture, and for what lies with its host. */
export function ownFile(piece: OfKind): { readonly mime: string } | null {
  switch (piece.kind) {
    case 'document':
      return DOCUMENT_FORMATS[piece.document.format];
    case 'film':
      return FILM_FORMATS[piece.film.format];
    default:
      return null;
  }
}
