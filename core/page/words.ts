import { changesOf } from '../media/recipe-says.ts';
import { type CreditPart, creditParts } from '../rights/attribution.ts';
import { type Judgement, judge } from '../rights/judgement.ts';
import type { Alt } from '../rights/label.ts';
import type { Placement } from './model.ts';
import { type Piece, recipeHere } from './picture.ts';
import type { HouseRules } from './target.ts';

/** The alt text in force: said here, or on the piece. */
export function altHere(placement: Placement, piece: Piece): Alt {
  return placement.alt ?? piece.label.alt;
}

/** The caption in force: said here, or on the piece; empty for none. */
export function captionHere(placement: Placement, piece: Piece): string {
  return (placement.caption ?? piece.label.caption).trim();
}

/** Whether this use is allowed, and what it owes. */
export function judgeHere(rules: HouseRules, placement: Placement, piece: Piece): Judgement {
  return judge(piece.label, {
    targetName: `the ${rules.name}`,
    commercial: rules.commercial,
    creditOwnWork: rules.creditOwnWork,
    changes: changesOf(recipeHere(placement, piece)),
  });
}

export function creditHere(rules: HouseRules, placement: Placement, piece: Piece): readonly CreditPart[] {
  return creditParts(piece.label, judgeHere(rules, placement, piece));
}
