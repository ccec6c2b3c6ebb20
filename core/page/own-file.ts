import { DOCUMENT_FORMATS } from '../document/formats.ts';
import { filmFiles, plainFile } from '../film/made.ts';
import type { OfKind, Piece } from './piece.ts';

/**
 * The file that words lead to which stand for a piece: its own, of a film the one that plays wherever it is opened. Null for a
 * picture, for what lies with its host, and for a film that is not made yet.
 */
export function ownFile(
  piece: Pick<Piece, 'stem' | 'extension'> & OfKind,
): { readonly name: string; readonly mime: string } | null {
  switch (piece.kind) {
    case 'document':
      return { name: `${piece.stem}.${piece.extension}`, mime: DOCUMENT_FORMATS[piece.document.format].mime };
    case 'film': {
      const file = plainFile(filmFiles(piece.stem, piece.extension, piece));
      return file ? { name: file.fileName, mime: file.type.replace(/;.*$/, '') } : null;
    }
    default:
      return null;
  }
}
