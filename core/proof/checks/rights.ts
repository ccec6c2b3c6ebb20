import { judgeHere } from '../../page/words.ts';
import { type Reason, sayReason } from '../../rights/judgement.ts';
import type { FindingCode, Found, Remedy } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Whether each use is allowed and its credit can be written (`core/rights`). */
export function checkRights(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap((placed) => {
    const [reason] = judgeHere(input.rules, placed.placement, placed.piece).reasons;
    if (!reason) return [];
    return [
      {
        code: codeOf(reason),
        sentence: sentenceOf(reason, callPiece(placed.piece)),
        why: sayReason(reason),
        place: atPlacement(placed.placement),
        remedies: remediesOf(reason, placed),
      },
    ];
  });
}

function codeOf(reason: Reason): FindingCode {
  if (reason.code === 'licence-unknown') return 'licence-missing';
  return reason.code === 'maker-missing' ? 'credit-missing' : 'use-not-allowed';
}

function sentenceOf(reason: Reason, name: string): string {
  switch (reason.code) {
    case 'licence-unknown':
      return `The licence of ${name} is not known.`;
    case 'maker-missing':
      return `${name} owes a credit that cannot be written.`;
    case 'comp':
      return `${name} is a comp.`;
    default:
      return `${name} may not be used like this.`;
  }
}

function remediesOf(reason: Reason, { placement }: Placed): readonly Remedy[] {
  const open: Remedy = {
    kind: 'open',
    words: 'Say its rights',
    place: atPlacement(placement),
    row: 'rights',
  };
  const remove: Remedy = { kind: 'remove', words: 'Take it off the page', placementId: placement.id };
  if (reason.code === 'no-changes') {
    return [
      { kind: 'placement', words: 'Show it whole', placementId: placement.id, change: { ratio: null } },
      open,
    ];
  }
  return reason.code === 'licence-unknown' || reason.code === 'maker-missing' ? [open] : [remove, open];
}
