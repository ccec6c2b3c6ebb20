import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type ProofInput, placedOf } from '../input.ts';

/** WCAG 2.2, 1.2.2: film with sound has captions. */
export function checkFilms(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap(({ placement, piece }): readonly Found[] => {
    if (piece.kind !== 'film' || piece.film.picture === null || piece.film.sound === null) return [];
    if (piece.captions.length > 0) return [];
    return [
      {
        code: 'captions-missing',
        values: { name: callPiece(piece) },
        place: atPlacement(placement),
        remedies: [],
      },
    ];
  });
}
