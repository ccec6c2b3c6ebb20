import type { EmbedForm } from '../embed/forms.ts';
import { formHere } from './embed-here.ts';
import { articleOf } from './lead.ts';
import type { PageDoc } from './model.ts';
import { embedOf, type HeldEmbed, type OfKind } from './piece.ts';
import type { HouseRules } from './target.ts';
import { placementsOf } from './walk.ts';

/** The embeds that stand on a page, each with its form there. */
export function embedsOfPage(
  page: PageDoc,
  rules: HouseRules,
  pieces: ReadonlyMap<string, OfKind>,
): readonly { readonly held: HeldEmbed; readonly form: EmbedForm }[] {
  return placementsOf(articleOf(page)).flatMap((placement) => {
    const piece = pieces.get(placement.asset);
    const held = piece ? embedOf(piece) : null;
    return held ? [{ held, form: formHere(rules, placement, held) }] : [];
  });
}
