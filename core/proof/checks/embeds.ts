import { formFault } from '../../embed/forms.ts';
import { trustOf } from '../../embed/host.ts';
import { formCase, formHere, siteOrigin } from '../../page/embed-here.ts';
import { embedOf, type HeldEmbed } from '../../page/piece.ts';
import type { HouseRules } from '../../page/target.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';
import type { Coded } from '../values.ts';

/** Embeds that cannot be shown, or not to everybody: each is said before a reader finds out. */
export function checkEmbeds(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap((placed) => {
    const held = embedOf(placed.piece);
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
  const found = (coded: Coded): readonly Found[] => [
    {
      ...coded,
      place: atPlacement(placement),
      remedies: [{ kind: 'remove', which: 'it', placementId: placement.id }],
    },
  ];
  const name = callPiece(piece);
  if (framing?.kind === 'gone') {
    const { host } = new URL(embed.page);
    return found({ code: 'embed-gone', values: { name, host, status: framing.status } });
  }
  if (trustOf(embed.address, hosts) === 'none') return found({ code: 'embed-untrusted', values: { name } });
  const standIn = formHere(rules, placement, held) === 'poster' ? 'poster' : 'link';
  if (framing?.kind === 'refused') {
    const { by, value } = framing;
    return found({ code: 'embed-refused', values: { name, by, value, standIn } });
  }
  const fault = ['click', 'frame', 'widget', 'player'].includes(formHere(rules, { form: null }, held))
    ? null
    : formFault('frame', formCase(rules, held));
  return fault ? found({ code: 'embed-stripped', values: { name, fault, standIn } }) : [];
}

/** WCAG 2.2, 1.2.2: film with sound has captions. Said of one of another host only where its host was asked and named none. */
function captions({ placement, piece }: Placed, { embed }: HeldEmbed): readonly Found[] {
  const { facts, kind } = embed;
  if (kind !== 'film' || facts.visibility === 'unknown' || facts.captions.length > 0) return [];
  return [
    {
      code: 'captions-missing',
      values: { name: callPiece(piece) },
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
      values: { name: callPiece(piece) },
      place: atPlacement(placement),
      remedies: [{ kind: 'remove', which: 'it', placementId: placement.id }],
    },
  ];
}
