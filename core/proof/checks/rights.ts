import { formFault } from '../../embed/forms.ts';
import { formCase } from '../../page/embed-here.ts';
import { linkedFiles } from '../../page/linked.ts';
import type { HouseRules } from '../../page/target.ts';
import { creditHere, judgeHere } from '../../page/words.ts';
import { creditWordsIn } from '../../rights/credit-words.ts';
import { termsOf } from '../../rights/house-licence.ts';
import type { Reason } from '../../rights/judgement.ts';
import type { Found, Remedy } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Whether each use is allowed and its credit can be written (`core/rights`). */
export function checkRights(input: ProofInput): readonly Found[] {
  return [...checkPlaced(input), ...checkFiles(input), ...checkCredits(input)];
}

/** Files that the page leads to go out with it, and are judged as what stands on it. */
function checkFiles({ page, pieces, rules, now }: ProofInput): readonly Found[] {
  return linkedFiles(page).flatMap(({ blockId, placement }): Found[] => {
    const piece = pieces.get(placement.asset);
    const [reason] = piece ? judgeHere(rules, placement, piece, now).reasons : [];
    if (!piece || !reason) return [];
    return [
      {
        code: codeOf(reason),
        values: { name: callPiece(piece), reason },
        place: { kind: 'block', blockId },
        remedies: [],
      },
    ];
  });
}

/** Credits in somebody's own words say what the licence asks for. */
function checkCredits(input: ProofInput): readonly Found[] {
  const { rules } = input;
  return placedOf(input).flatMap(({ placement, piece }): Found[] => {
    const { leftOut } = creditHere(rules, placement, piece);
    if (leftOut.length === 0) return [];
    const { creditWords } = piece.label;
    const own = creditWordsIn(creditWords, rules.language);
    return [
      {
        code: 'credit-leaves-out',
        values: { name: callPiece(piece), parts: leftOut, licence: termsOf(piece.label).name },
        place: atPlacement(placement),
        remedies: own
          ? [{ kind: 'credit-by-licence', assetId: piece.id, language: own.language }]
          : [{ kind: 'set-licence', placementId: placement.id }],
      },
    ];
  });
}

function checkPlaced(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap((placed) => {
    const [reason] = judgeHere(input.rules, placed.placement, placed.piece, input.now).reasons;
    if (!reason) return [];
    return [
      {
        code: codeOf(reason),
        values: { name: callPiece(placed.piece), reason },
        place: atPlacement(placed.placement),
        remedies: [...withoutCopying(reason, placed, input.rules), ...remediesOf(reason, placed)],
      },
    ];
  });
}

function codeOf(
  reason: Reason,
): 'licence-missing' | 'licence-claimed' | 'credit-missing' | 'use-not-allowed' {
  switch (reason.code) {
    case 'licence-unknown':
      return 'licence-missing';
    case 'licence-claimed':
      return 'licence-claimed';
    case 'maker-missing':
    case 'agency-missing':
      return 'credit-missing';
    default:
      return 'use-not-allowed';
  }
}

/** Where an embed's poster may not be copied, a form that shows none needs no licence. */
function withoutCopying(
  { code }: Reason,
  { placement, piece }: Placed,
  rules: HouseRules,
): readonly Remedy[] {
  if (code !== 'licence-unknown' || piece.kind !== 'embed') return [];
  const form = formFault('frame', formCase(rules, piece.embed)) === null ? 'frame' : 'link';
  const does = form === 'frame' ? 'frame-at-once' : 'link-in-words';
  return [{ kind: 'placement', does, placementId: placement.id, change: { form } }];
}

function remediesOf(reason: Reason, { placement }: Placed): readonly Remedy[] {
  const open: Remedy = { kind: 'set-licence', placementId: placement.id };
  const remove: Remedy = { kind: 'remove', which: 'it', placementId: placement.id };
  if (reason.code === 'no-changes') {
    return [
      { kind: 'placement', does: 'show-whole', placementId: placement.id, change: { ratio: null } },
      open,
    ];
  }
  return codeOf(reason) === 'use-not-allowed' ? [remove, open] : [open];
}
