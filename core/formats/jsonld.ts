import { messagesFor } from '../messages/messages.ts';
import { type PageDoc, placementsOf } from '../page/model.ts';
import { type Piece, planPicture } from '../page/picture.ts';
import type { HouseRules } from '../page/target.ts';
import { altHere, captionHere, creditedAs, creditHere } from '../page/words.ts';
import { creditText } from '../rights/attribution.ts';
import { licenceTerms } from '../rights/licences.ts';

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
  for (const placement of placementsOf(page)) {
    const piece = pieces.get(placement.asset);
    if (!piece) continue;
    const { fallback, cutsOf } = planPicture(rules, placement, piece);
    const cut = cutsOf(fallback.format).at(-1) ?? fallback;
    const { label } = piece;
    const alt = altHere(placement, piece);
    const caption = captionHere(placement, piece);
    const credit = creditText(
      creditHere(rules, placement, piece),
      creditedAs(piece),
      messagesFor(rules.language),
    );
    objects.set(cut.fileName, {
      '@type': 'ImageObject',
      contentUrl: addressOf(cut.fileName),
      width: cut.size.width,
      height: cut.size.height,
      ...said('name', label.title),
      ...said('caption', caption),
      ...said('description', label.description.trim() || (alt.kind === 'text' ? alt.text : '')),
      ...(label.maker
        ? {
            creator: {
              '@type': kindOfMaker(label.maker),
              name: label.maker,
              ...said('url', label.makerAddress),
            },
          }
        : {}),
      ...said('creditText', credit),
      ...said('copyrightNotice', label.notice),
      ...said('license', licenceTerms(label.licence).address ?? ''),
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
