import { styleOn } from '../../page/picture-style.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type ProofInput, placedOf } from '../input.ts';

/** Pictures with a style that their target does not have: it was taken out of House rules, or the page came from another. */
export function checkStyles(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap(({ placement, piece }) => {
    const { pictureStyle: style } = placement;
    if (style === null || styleOn(input.rules.pictureStyles, placement)) return [];
    return [
      {
        code: 'picture-style-unknown' as const,
        values: { name: callPiece(piece), style },
        place: atPlacement(placement),
        remedies: [
          {
            kind: 'placement' as const,
            does: 'no-style' as const,
            placementId: placement.id,
            change: { pictureStyle: null },
          },
        ],
      },
    ];
  });
}
