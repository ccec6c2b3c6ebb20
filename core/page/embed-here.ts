import { chooseForm, type EmbedForm, type FormCase } from '../embed/forms.ts';
import { entryById } from '../embed/host.ts';
import type { Embed } from '../embed/model.ts';
import { titleOf } from '../embed/write.ts';
import type { Messages } from '../messages/table.ts';
import type { Placement } from './blocks/placement/schema.ts';
import { embedOf, type HeldEmbed, type OfKind } from './piece.ts';
import { playsHere } from './player-here.ts';
import type { HouseRules } from './target.ts';

/** The origin of a target's pages; the empty text where it has no address. */
export function siteOrigin({ siteAddress }: Pick<HouseRules, 'siteAddress'>): string {
  return URL.canParse(siteAddress) ? new URL(siteAddress).origin : '';
}

/** What a screen reader says before the frame. */
export function titleOfHeld({ embed, hosts }: HeldEmbed, messages: Messages): string {
  return titleOf(embed, entryById(embed.host, hosts), messages);
}

/** An embed on a target, with all that decides how it can stand there. Its poster is the piece's own picture. */
export function formCase(rules: HouseRules, { embed, hosts, framing }: HeldEmbed): FormCase {
  return { embed, hosts, target: rules, framing: framing[siteOrigin(rules)] ?? null, hasPoster: true };
}

/** The form in which an embed stands in one use: the wished one where it is open there, or the fullest that is. */
export function formHere(rules: HouseRules, placement: Pick<Placement, 'form'>, held: HeldEmbed): EmbedForm {
  return chooseForm(formCase(rules, held), placement.form);
}

/** What a piece embeds as one use of it shows it: with the settings that are said there alone, such as its start. */
export function embedHere(
  { settings }: Pick<Placement, 'settings'>,
  { embed }: Pick<HeldEmbed, 'embed'>,
): Embed {
  if (!settings) return embed;
  const parameters = Object.entries({ ...embed.parameters, ...settings }).filter(
    (one): one is [string, string] => one[1] !== null,
  );
  return { ...embed, parameters: Object.fromEntries(parameters) };
}

/** The settings of one use with another in it; null as soon as they say nothing that the piece does not say itself. */
export function withSetting(
  settings: Placement['settings'],
  { embed }: Pick<HeldEmbed, 'embed'>,
  name: string,
  value: string | undefined,
): Placement['settings'] {
  const { [name]: _before, ...others } = settings ?? {};
  const next = value === embed.parameters[name] ? others : { ...others, [name]: value ?? null };
  return Object.keys(next).length > 0 ? next : null;
}

/** How a use shows the piece's picture: in all its sizes, as the one file that a player names, or not at all. */
export type PictureUse = 'sizes' | 'one-file' | 'none';

/** How a use shows the piece's picture. Frames that are there at once and links in words show none. */
export function pictureUse(rules: HouseRules, placement: Pick<Placement, 'form'>, piece: OfKind): PictureUse {
  // A film shows one still before it plays; a recording shows none.
  if (piece.kind === 'film') {
    if (piece.film.picture === null) return 'none';
    return playsHere(rules, piece.film) ? 'one-file' : 'sizes';
  }
  if (piece.kind !== 'embed') return 'sizes';
  const { embed } = piece;
  const form = formHere(rules, placement, embed);
  if (form === 'click' || form === 'poster') return 'sizes';
  return form === 'player' && embed.embed.carrier === 'video' ? 'one-file' : 'none';
}

/** Whether a use sends a copy of the piece out: not where its host shows it, nor behind a poster drawn here. */
export function copiesHere(rules: HouseRules, placement: Pick<Placement, 'form'>, piece: OfKind): boolean {
  // Its file goes out, whatever shows it.
  if (piece.kind === 'film') return true;
  return embedOf(piece)?.poster !== 'drawn' && pictureUse(rules, placement, piece) !== 'none';
}
