import { changesOf } from '../media/recipe-says.ts';
import { messagesFor } from '../messages/messages.ts';
import type { Made } from '../messages/table.ts';
import { type CreditPart, creditParts } from '../rights/attribution.ts';
import { copyAt, type Judgement, judge } from '../rights/judgement.ts';
import type { Alt } from '../rights/label.ts';
import { copiesHere } from './embed-here.ts';
import { type PageDoc, type Placement, placementsOf } from './model.ts';
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
  const changes = changesOf(recipeHere(placement, piece));
  return judge(piece.label, { ...copyAt(rules, changes), copies: copiesHere(rules, placement, piece) });
}

/** Whether a piece that is not placed yet may be used on a target, whole and in the form that suits it best there. */
export function judgeUnplaced(rules: HouseRules, piece: Pick<Piece, 'label' | 'embed'>): Judgement {
  return judge(piece.label, { ...copyAt(rules), copies: copiesHere(rules, { form: null }, piece) });
}

/** Whether a piece may stand on a page as it does: the first use there that is not simply allowed decides. */
export function judgeOnPage(rules: HouseRules, page: PageDoc, piece: Piece): Judgement {
  return judgeUses(
    rules,
    placementsOf(page).filter(({ asset }) => asset === piece.id),
    piece,
  );
}

/** The same of the uses of a piece on one page, where they are known. */
export function judgeUses(rules: HouseRules, uses: readonly Placement[], piece: Piece): Judgement {
  const here = uses.map((placement) => judgeHere(rules, placement, piece));
  return here.find(({ verdict }) => verdict !== 'allowed') ?? here[0] ?? judgeUnplaced(rules, piece);
}

export function creditHere(rules: HouseRules, placement: Placement, piece: Piece): readonly CreditPart[] {
  return creditParts(piece.label, judgeHere(rules, placement, piece), messagesFor(rules.language));
}

/** What a credit names as made: the kind of an embed, else a photo. */
export function creditedAs({ embed }: Pick<Piece, 'embed'>): Made {
  return embed ? embed.embed.kind : 'photo';
}
