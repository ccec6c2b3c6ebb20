import { articleOf } from '../page/lead.ts';
import type { PageDoc } from '../page/model.ts';
import { planPicture } from '../page/picture.ts';
import type { Piece } from '../page/piece.ts';
import type { HouseRules } from '../page/target.ts';
import { standingsOf } from '../page/walk.ts';
import { altHere, captionHere, creditHere } from '../page/words.ts';
import { licenceAddressOf } from '../rights/attribution.ts';
import { creditText } from '../rights/credit.ts';
import { labelIn } from '../rights/label-in.ts';

/** schema.org ImageObject. Only what is known is said. */
export interface ImageObject {
  readonly '@type': 'ImageObject';
  readonly contentUrl: string;
  readonly name?: string;
  readonly caption?: string;
  readonly description?: string;
  readonly width: number;
  readonly height: number;
  readonly creator?: {
    readonly '@type': 'Person' | 'Organization';
    readonly name: string;
    readonly url?: string;
  };
  readonly creditText?: string;
  readonly copyrightNotice?: string;
  readonly license?: string;
  readonly acquireLicensePage?: string;
}

/** The pictures of a page as JSON-LD (schema.org), each piece and shape once. */
export function imageObjects(
  page: PageDoc,
  pieces: ReadonlyMap<string, Piece>,
  rules: HouseRules,
  addressOf: (fileName: string) => string,
): { readonly '@context': 'https://schema.org'; readonly '@graph': readonly ImageObject[] } {
  const objects = new Map<string, ImageObject>();
  for (const standing of standingsOf(articleOf(page), { rules, pieces })) {
    const { placement } = standing;
    const piece = pieces.get(placement.asset);
    // The first page of a document is no picture of its own, nor a still: what is linked is the document, what plays the film.
    if (!piece || piece.kind === 'document' || piece.kind === 'film') continue;
    const { fallback, cutsOf } = planPicture(rules, standing, piece);
    const cut = cutsOf(fallback.format).at(-1) ?? fallback;
    const label = labelIn(piece.label, rules.language);
    const alt = altHere(rules, placement, piece);
    const caption = captionHere(rules, placement, piece);
    const credit = creditText(creditHere(rules, placement, piece));
    objects.set(cut.fileName, {
      '@type': 'ImageObject',
      contentUrl: addressOf(cut.fileName),
      width: cut.size.width,
      height: cut.size.height,
      ...said('name', label.title),
      ...said('caption', caption),
      ...said('description', label.extendedDescription.trim() || (alt.kind === 'text' ? alt.text : '')),
      ...(label.creator
        ? {
            creator: {
              '@type': kindOfMaker(label.creator),
              name: label.creator,
              ...said('url', label.makerAddress),
            },
          }
        : {}),
      ...said('creditText', credit),
      ...said('copyrightNotice', label.copyrightNotice),
      ...said('license', licenceAddressOf(label) ?? ''),
      ...said('acquireLicensePage', label.sourceAddress),
    });
  }
  return { '@context': 'https://schema.org', '@graph': [...objects.values()] };
}

/** Words that stand in the names of houses, and hardly in those of people. */
const OF_HOUSES =
  /\b(?:agency|archives?|association|board|bureau|centre|center|club|college|commission|committee|company|council|department|foundation|gallery|gmbh|group|inc|institute|library|limited|llc|ltd|ministry|museum|museums|office|press|project|reserve|school|services?|society|studio|studios|survey|trust|union|university|volunteers|works)\b/iu;

/** Whether a maker is a person or a house, by the words of the name (schema.org `creator`). */
export const kindOfMaker = (name: string): 'Person' | 'Organization' =>
  OF_HOUSES.test(name) ? 'Organization' : 'Person';

function said<K extends string>(key: K, value: string): { [P in K]?: string } {
  return value === '' ? {} : ({ [key]: value } as { [P in K]?: string });
}
