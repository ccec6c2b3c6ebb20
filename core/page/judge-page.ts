import type { Judgement } from '../rights/judgement.ts';
import { usesOf } from './linked.ts';
import type { PageDoc } from './model.ts';
import type { Piece } from './piece.ts';
import type { HouseRules } from './target.ts';
import { judgeUses } from './words.ts';

/** Whether a piece may stand on a page as it does now: the first use there that is not simply allowed decides. */
export function judgeOnPage(rules: HouseRules, page: PageDoc, piece: Piece, now: Date): Judgement {
  return judgeUses(
    rules,
    usesOf(page).filter(({ asset }) => asset === piece.id),
    piece,
    now,
  );
}
