import { goodStem } from '../../naming/names.ts';
import { nameFault, sayNameFault } from '../../naming/rule.ts';
import { placementsOf } from '../../page/model.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type ProofInput, placedOf } from '../input.ts';

/** Pieces that are gone, names that break the rule, the same piece twice. */
export function checkPieces(input: ProofInput): readonly Found[] {
  return [...missing(input), ...names(input), ...repeats(input)];
}

function missing(input: ProofInput): readonly Found[] {
  return placementsOf(input.page)
    .filter((placement) => !input.pieces.has(placement.asset))
    .map((placement) => ({
      code: 'piece-missing' as const,
      sentence: 'A piece on this page is no longer on the shelf.',
      why: 'Its place goes out empty.',
      place: atPlacement(placement),
      remedies: [{ kind: 'remove' as const, words: 'Take it off the page', placementId: placement.id }],
    }));
}

function names(input: ProofInput): readonly Found[] {
  const seen = new Set<string>();
  return placedOf(input).flatMap(({ placement, piece }) => {
    const fault = nameFault(piece.stem);
    if (!fault || seen.has(piece.id)) return [];
    seen.add(piece.id);
    const stem = goodStem(piece.label.title || piece.stem, 'picture', input.rules.language);
    return [
      {
        code: 'name-rule' as const,
        sentence: `The name ${piece.stem}.${piece.extension} breaks the rule.`,
        why: sayNameFault(fault),
        place: atPlacement(placement),
        remedies: [{ kind: 'rename' as const, words: `Name it ${stem}`, assetId: piece.id, stem }],
      },
    ];
  });
}

function repeats(input: ProofInput): readonly Found[] {
  const seen = new Set<string>();
  return placedOf(input).flatMap(({ placement, piece }) => {
    if (!seen.has(piece.id)) {
      seen.add(piece.id);
      return [];
    }
    return [
      {
        code: 'same-piece-twice' as const,
        sentence: `${callPiece(piece)} stands twice on this page.`,
        why: 'Readers may take the second for a mistake.',
        place: atPlacement(placement),
        remedies: [{ kind: 'remove' as const, words: 'Take the second off', placementId: placement.id }],
      },
    ];
  });
}

/** Wants that no piece fills yet. */
export function checkWants(input: ProofInput): readonly Found[] {
  return input.page.wants
    .filter((want) => want.filledBy === null)
    .map((want) => ({
      code: 'want-unfilled' as const,
      sentence: `“${want.purpose}” is still wanted.`,
      why: 'The plan of this page asks for it, and no piece fills it.',
      place: { kind: 'want' as const, wantId: want.id },
      remedies: [
        {
          kind: 'open' as const,
          words: 'Find a piece',
          place: { kind: 'want' as const, wantId: want.id },
          row: 'none' as const,
        },
        { kind: 'drop-want' as const, words: 'It is not wanted', wantId: want.id },
      ],
    }));
}
