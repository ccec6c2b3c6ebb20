import { goodStem } from '../../naming/names.ts';
import { nameFault } from '../../naming/rule.ts';
import { placementsOf } from '../../page/walk.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, inArticle, type ProofInput, placedOf } from '../input.ts';

/** Pieces that are gone, names that break the rule, the same piece twice. */
export function checkPieces(input: ProofInput): readonly Found[] {
  return [...missing(input), ...names(input), ...repeats(input)];
}

function missing(input: ProofInput): readonly Found[] {
  return placementsOf(input.page)
    .filter((placement) => !input.pieces.has(placement.asset))
    .map((placement) => ({
      code: 'piece-missing' as const,
      values: {},
      place: atPlacement(placement),
      remedies: [{ kind: 'remove' as const, which: 'it' as const, placementId: placement.id }],
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
        values: { fileName: `${piece.stem}.${piece.extension}`, fault },
        place: atPlacement(placement),
        remedies: [{ kind: 'rename' as const, assetId: piece.id, stem }],
      },
    ];
  });
}

function repeats(input: ProofInput): readonly Found[] {
  const seen = new Set<string>();
  return inArticle(input).flatMap(({ placement, piece }) => {
    if (!seen.has(piece.id)) {
      seen.add(piece.id);
      return [];
    }
    return [
      {
        code: 'same-piece-twice' as const,
        values: { name: callPiece(piece) },
        place: atPlacement(placement),
        remedies: [{ kind: 'remove' as const, which: 'the-second' as const, placementId: placement.id }],
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
      values: { purpose: want.purpose },
      place: { kind: 'want' as const, wantId: want.id },
      remedies: [
        { kind: 'find-piece' as const, wantId: want.id },
        { kind: 'drop-want' as const, wantId: want.id },
      ],
    }));
}
