import { changesOf } from '../media/recipe-says.ts';
import { messagesFor } from '../messages/messages.ts';
import type { Made } from '../messages/table.ts';
import { type CreditPart, creditParts } from '../rights/attribution.ts';
import { copyAt, type Judgement, judge } from '../rights/judgement.ts';
import type { Alt } from '../rights/label.ts';
import { labelIn } from '../rights/label-in.ts';
import type { Placement } from './blocks/placement/schema.ts';
import { copiesHere } from './embed-here.ts';
import { recipeHere } from './picture.ts';
import type { OfKind, Piece } from './piece.ts';
import type { HouseRules } from './target.ts';

/** The language of the pages that words go out on. */
type InLanguage = Pick<HouseRules, 'language'>;

/** The alt text in force: said here, or on the piece in the page's language. */
export function altHere({ language }: InLanguage, placement: Placement, piece: Piece): Alt {
  return placement.alt ?? labelIn(piece.label, language).alt;
}

/** The caption in force: said here, or on the piece in the page's language; empty for none. */
export function captionHere({ language }: InLanguage, placement: Placement, piece: Piece): string {
  return (placement.caption ?? labelIn(piece.label, language).caption).trim();
}

/** What a piece is called on a page: by its title in the page's language, or by its name. */
export function titleHere({ language }: InLanguage, { label, stem }: Pick<Piece, 'label' | 'stem'>): string {
  return labelIn(label, language).title.trim() || stem;
}

/** Whether this use is allowed, and what it owes. */
export function judgeHere(rules: HouseRules, placement: Placement, piece: Piece): Judgement {
  const changes = changesOf(recipeHere(placement, piece));
  return judge(piece.label, { ...copyAt(rules, changes), copies: copiesHere(rules, placement, piece) });
}

/** Whether a piece that is not placed yet may be used on a target, whole and in the form that suits it best there. */
export function judgeUnplaced(rules: HouseRules, piece: Pick<Piece, 'label'> & OfKind): Judgement {
  return judge(piece.label, { ...copyAt(rules), copies: copiesHere(rules, { form: null }, piece) });
}

/** Whether a piece may stand in these uses of a page: the first that is not simply allowed decides. */
export function judgeUses(rules: HouseRules, uses: readonly Placement[], piece: Piece): Judgement {
  const here = uses.map((placement) => judgeHere(rules, placement, piece));
  return here.find(({ verdict }) => verdict !== 'allowed') ?? here[0] ?? judgeUnplaced(rules, piece);
}

export function creditHere(rules: HouseRules, placement: Placement, piece: Piece): readonly CreditPart[] {
  return creditParts(
    labelIn(piece.label, rules.language),
    judgeHere(rules, placement, piece),
    messagesFor(rules.language),
  );
}

/** What a credit names as made. */
export function creditedAs(piece: OfKind): Made {
  switch (piece.kind) {
    case 'picture':
      return 'photo';
    case 'embed':
      return piece.embed.embed.kind;
    case 'document':
      return 'document';
  }
}
