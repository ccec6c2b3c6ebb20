import { chosenWidth } from '../../media/ladder.ts';
import { guessBytes } from '../../media/weight.ts';
import { shownWidth } from '../../page/layout.ts';
import type { Found } from '../finding.ts';
import { inArticle, type ProofInput } from '../input.ts';

/** Bytes of the pictures a sharp screen of `viewport` px loads, guessed from their sizes until cuts are made. */
function guessedLoad(input: ProofInput, viewport: number): number {
  return inArticle(input).reduce((sum, { placement, room, plan }) => {
    const width = chosenWidth(plan.ladder, shownWidth(input.rules, placement, room, viewport), 2);
    return sum + guessBytes(width, (width * plan.cutSize.height) / plan.cutSize.width, plan.formats[0]);
  }, 0);
}

export function checkWeight(input: ProofInput): readonly Found[] {
  const heaviest = Math.max(...input.rules.proofWidths.map((viewport) => guessedLoad(input, viewport)));
  if (heaviest <= input.rules.weightBudget) return [];
  return [
    {
      code: 'page-heavy',
      values: { bytes: heaviest, budget: input.rules.weightBudget },
      place: { kind: 'page' },
      remedies: [],
    },
  ];
}
