import { whyNot } from '../../embed/forms.ts';
import { trustOf } from '../../embed/host.ts';
import { formCase, formHere, type HeldEmbed, siteOrigin } from '../../page/embed-here.ts';
import type { HouseRules } from '../../page/target.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Embeds that cannot be shown, or not to everybody: each is said before a reader finds out. */
export function checkEmbeds(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap((placed) => {
    const held = placed.piece.embed;
    return held
      ? [...standing(input.rules, placed, held), ...captions(placed, held), ...visibility(placed, held)]
      : [];
  });
}

/** Why it is not the frame that it could be: gone, refused, not trusted, or stripped by the target. */
function standing(rules: HouseRules, { placement, piece }: Placed, held: HeldEmbed): readonly Found[] {
  const { embed, hosts } = held;
  if (embed.carrier === 'link') return [];
  const framing = held.framing[siteOrigin(rules)];
  const found = (code: Found['code'], sentence: string, why: string): readonly Found[] => [
    {
      code,
      sentence,
      why,
      place: atPlacement(placement),
      remedies: [{ kind: 'remove', words: 'Take it off the page', placementId: placement.id }],
    },
  ];
  const name = callPiece(piece);
  if (framing?.kind === 'gone')
    return found(
      'embed-gone',
      `${name} is no longer at its host.`,
      `${new URL(embed.page).host} answered ${framing.status}. A link there leads nowhere.`,
    );
  if (trustOf(embed.address, hosts) === 'none')
    return found(
      'embed-untrusted',
      `${name} comes from a host that nobody has decided on.`,
      'It goes out as a link. The site owner can decide to trust its host.',
    );
  if (framing?.kind === 'refused')
    return found(
      'embed-refused',
      `${name} refuses to be framed here.`,
      `Its host says ${framing.by}: ${framing.value}. ${stands(rules, { placement, piece }, held)}`,
    );
  const why = ['click', 'frame', 'widget', 'player'].includes(formHere(rules, { form: null }, held))
    ? null
    : whyNot('frame', formCase(rules, held));
  return why
    ? found(
        'embed-stripped',
        `${name} does not come through here as a frame.`,
        `${why} ${stands(rules, { placement, piece }, held)}`,
      )
    : [];
}

function stands(
  rules: HouseRules,
  { placement }: Pick<Placed, 'placement' | 'piece'>,
  held: HeldEmbed,
): string {
  return formHere(rules, placement, held) === 'poster'
    ? 'A linked poster stands in its place.'
    : 'A link stands in its place.';
}

/** WCAG 2.2, 1.2.2: film with sound has captions. Only said where its host was asked and named none. */
function captions({ placement, piece }: Placed, { embed }: HeldEmbed): readonly Found[] {
  const { facts, kind } = embed;
  if (kind !== 'film' || facts.visibility === 'unknown' || facts.captions.length > 0) return [];
  return [
    {
      code: 'captions-missing',
      sentence: `${callPiece(piece)} has no captions.`,
      why: 'Those who cannot hear it, or have the sound off, miss what is said. Ask its maker for them.',
      place: atPlacement(placement),
      remedies: [],
    },
  ];
}

function visibility({ placement, piece }: Placed, { embed }: HeldEmbed): readonly Found[] {
  if (embed.facts.visibility !== 'private') return [];
  return [
    {
      code: 'embed-private',
      sentence: `${callPiece(piece)} is private at its host.`,
      why: 'Readers see nothing of it. Ask for it to be opened.',
      place: atPlacement(placement),
      remedies: [{ kind: 'remove', words: 'Take it off the page', placementId: placement.id }],
    },
  ];
}
