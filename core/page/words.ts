import { filmKind } from '../film/facts.ts';
import { changesOf } from '../media/recipe-says.ts';
import { messagesFor } from '../messages/messages.ts';
import type { Made } from '../messages/table.ts';
import { type Credit, creditOf, NO_CREDIT } from '../rights/credit.ts';
import { copyAt, type Judgement, judge } from '../rights/judgement.ts';
import type { Alt } from '../rights/label.ts';
import { labelIn } from '../rights/label-in.ts';
import { dayIn } from '../rights/terms.ts';
import type { Placement } from './blocks/placement/schema.ts';
import { copiesHere } from './embed-here.ts';
import { recipeHere } from './picture.ts';
import type { OfKind, Piece } from './piece.ts';
import type { Room } from './room.ts';
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

/** Whether this use is allowed at a moment, and what it owes; `now` null where no day is asked about. */
export function judgeHere(
  rules: HouseRules,
  placement: Placement,
  piece: Piece,
  now: Date | null,
): Judgement {
  const changes = changesOf(recipeHere(placement, piece));
  const use = { ...copyAt(rules, changes, dayAt(rules, now)), copies: copiesHere(rules, placement, piece) };
  return judge(piece.label, use, piece.isLicenceClaimed);
}

const dayAt = ({ timeZone }: HouseRules, now: Date | null): string | null =>
  now === null ? null : dayIn(timeZone, now);

/** Whether a piece that is not placed yet may be used on a target, whole and in the form that suits it best there. */
export function judgeUnplaced(
  rules: HouseRules,
  piece: Pick<Piece, 'label' | 'isLicenceClaimed'> & OfKind,
  now: Date | null,
): Judgement {
  const use = {
    ...copyAt(rules, [], dayAt(rules, now)),
    copies: copiesHere(rules, { form: null }, piece),
  };
  return judge(piece.label, use, piece.isLicenceClaimed);
}

/** Whether a piece may stand in these uses of a page: the first that is not simply allowed decides. */
export function judgeUses(
  rules: HouseRules,
  uses: readonly Placement[],
  piece: Piece,
  now: Date | null,
): Judgement {
  const here = uses.map((placement) => judgeHere(rules, placement, piece, now));
  return here.find(({ verdict }) => verdict !== 'allowed') ?? here[0] ?? judgeUnplaced(rules, piece, now);
}

/** The credit of a use. In a card there is room for the short form alone. */
export function creditHere(
  rules: HouseRules,
  placement: Placement,
  piece: Piece,
  room: Pick<Room, 'isCard'> = {},
): Credit {
  return creditOf(labelIn(piece.label, rules.language), judgeHere(rules, placement, piece, null), {
    made: creditedAs(piece),
    messages: messagesFor(rules.language),
    language: rules.language,
    form: room.isCard ? 'short' : 'full',
  });
}

/** What of it stands under the picture: nothing where the credits of a page stand at its foot. */
export const creditUnder = (
  rules: HouseRules,
  placement: Placement,
  piece: Piece,
  room: Pick<Room, 'isCard'>,
): Credit => (rules.creditsAt === 'foot' ? NO_CREDIT : creditHere(rules, placement, piece, room));

/** Files of these come from cameras, or stand for such as do; a drawing, a map or a sign is rarely one. */
const OF_CAMERAS: ReadonlySet<string> = new Set(['jpg', 'tif', 'avif']);

/** What a credit names as made: what somebody said that it is, or what its kind of file mostly is. */
export function creditedAs(piece: OfKind & Pick<Piece, 'label' | 'extension'>): Made {
  switch (piece.kind) {
    case 'picture':
      return piece.label.work || (OF_CAMERAS.has(piece.extension) ? 'photo' : 'picture');
    case 'embed':
      return piece.embed.embed.kind;
    case 'document':
      return 'document';
    case 'film':
      return filmKind(piece.film);
  }
}
