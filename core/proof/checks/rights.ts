import { whyNot } from '../../embed/forms.ts';
import { formCase } from '../../page/embed-here.ts';
import type { HouseRules } from '../../page/target.ts';
import { judgeHere } from '../../page/words.ts';
import { type Reason, sayReason } from '../../rights/judgement.ts';
import type { FindingCode } from '../codes.ts';
import type { Found, Remedy } from '../finding.ts';
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
        remedies: [...withoutCopying(reason, placed, input.rules), ...remediesOf(reason, placed)],
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

/** Where an embed's poster may not be copied, a form that shows none needs no licence. */
function withoutCopying(
  { code }: Reason,
  { placement, piece }: Placed,
  rules: HouseRules,
): readonly Remedy[] {
  if (code !== 'licence-unknown' || !piece.embed) return [];
  const form = whyNot('frame', formCase(rules, piece.embed)) === null ? 'frame' : 'link';
  const words =
    form === 'frame' ? 'Show its frame at once, without a poster' : 'Link to it in words, without a poster';
  return [{ kind: 'placement', words, placementId: placement.id, change: { form } }];
}

function remediesOf(reason: Reason, { placement }: Placed): readonly Remedy[] {
  const open: Remedy = {
    kind: 'open',
    words: 'Set licence',
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
