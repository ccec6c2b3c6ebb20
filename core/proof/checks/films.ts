import { FILM_FORMATS } from '../../film/facts.ts';
import { factsOut, filmFault } from '../../film/made.ts';
import type { Piece } from '../../page/piece.ts';
import type { HouseRules } from '../../page/target.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type ProofInput, placedOf } from '../input.ts';

type Film = Extract<Piece, { readonly kind: 'film' }>;
type Told = Pick<Extract<Found, { code: `film-${string}` | `captions-${string}` }>, 'code' | 'values'>;

/** Films and sound of the house's own: whether they go out as they are meant, are played everywhere, and can be followed. */
export function checkFilms(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap(({ placement, piece }): readonly Found[] => {
    if (piece.kind !== 'film') return [];
    const told = [...captionFaults(piece), ...fileFaults(piece, input.rules)];
    return told.map((one) => ({ ...one, place: atPlacement(placement), remedies: [] }) as Found);
  });
}

/** WCAG 2.2, 1.2.2: film with sound has captions, in step with it. */
function captionFaults(piece: Film): readonly Told[] {
  const name = callPiece(piece);
  const { film, captions, outOfStep } = piece;
  if (film.picture !== null && film.sound !== null && captions.length === 0)
    return [{ code: 'captions-missing', values: { name } }];
  return outOfStep.length > 0
    ? [{ code: 'captions-out-of-step', values: { name, languages: outOfStep } }]
    : [];
}

const BYTES = 1_000_000;
const SECONDS = 60;

function fileFaults(piece: Film, { films }: Pick<HouseRules, 'films'>): readonly Told[] {
  const name = callPiece(piece);
  const fault = filmFault(piece);
  if (fault === 'not-made') return [{ code: 'film-not-made', values: { name } }];
  const { bytes, seconds } = factsOut(piece.stem, piece.extension, piece);
  const { mostMegabytes, mostMinutes } = films;
  const isLarge = bytes > mostMegabytes * BYTES || seconds > mostMinutes * SECONDS;
  return [
    ...(fault === 'not-played'
      ? [{ code: 'film-not-played', values: { name, says: FILM_FORMATS[piece.film.format].says } } as const]
      : []),
    ...(isLarge
      ? [{ code: 'film-too-large', values: { name, bytes, seconds, mostMegabytes, mostMinutes } } as const]
      : []),
  ];
}
