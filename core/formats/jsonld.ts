import { captionsName } from '../film/captions-name.ts';
import { factsOut, filmFiles, plainFile } from '../film/made.ts';
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

/** schema.org MediaObject, as a picture, a film or a recording. Only what is known is said. */
export interface ImageObject {
  readonly '@type': 'ImageObject' | 'VideoObject' | 'AudioObject';
  readonly contentUrl: string;
  readonly thumbnailUrl?: string;
  readonly encodingFormat?: string;
  /** ISO 8601. */
  readonly duration?: string;
  readonly dateCreated?: string;
  readonly transcript?: string;
  readonly name?: string;
  readonly caption?: string | readonly TrackObject[];
  readonly description?: string;
  readonly width?: number;
  readonly height?: number;
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

interface TrackObject {
  readonly '@type': 'MediaObject';
  readonly contentUrl: string;
  readonly encodingFormat: 'text/vtt';
  readonly inLanguage: string;
}

/** The pictures, films and recordings of a page as JSON-LD (schema.org), each piece and shape once. */
export function imageObjects(
  page: PageDoc,
  pieces: ReadonlyMap<string, Piece>,
  rules: HouseRules,
  {
    addressOf,
    fileOf,
  }: { readonly addressOf: (fileName: string) => string; readonly fileOf: (fileName: string) => string },
): { readonly '@context': 'https://schema.org'; readonly '@graph': readonly ImageObject[] } {
  const objects = new Map<string, ImageObject>();
  for (const standing of standingsOf(articleOf(page), { rules, pieces })) {
    const { placement } = standing;
    const piece = pieces.get(placement.asset);
    // The first page of a document is no picture of its own: what is linked is the document.
    if (!piece || piece.kind === 'document') continue;
    const { fallback, cutsOf } = planPicture(rules, standing, piece);
    const cut = cutsOf(fallback.format).at(-1) ?? fallback;
    const label = labelIn(piece.label, rules.language);
    const alt = altHere(rules, placement, piece);
    const caption = captionHere(rules, placement, piece);
    const credit = creditText(creditHere(rules, placement, piece));
    const object =
      piece.kind === 'film'
        ? filmObject(piece, { poster: addressOf(cut.fileName), fileOf })
        : {
            '@type': 'ImageObject' as const,
            contentUrl: addressOf(cut.fileName),
            width: cut.size.width,
            height: cut.size.height,
            ...said('caption', caption),
          };
    if (!object) continue;
    objects.set(cut.fileName, {
      ...object,
      ...said('name', label.title),
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

type Film = Extract<Piece, { readonly kind: 'film' }>;

/** schema.org VideoObject and AudioObject; null for a film that does not go out yet. */
function filmObject(
  piece: Film,
  { poster, fileOf }: { readonly poster: string; readonly fileOf: (fileName: string) => string },
): ImageObject | null {
  const file = plainFile(filmFiles(piece.stem, piece.extension, piece));
  if (!file) return null;
  const { seconds } = factsOut(piece.stem, piece.extension, piece);
  const transcript = piece.texts?.find(({ kind }) => kind === 'transcript');
  return {
    '@type': piece.film.picture === null ? 'AudioObject' : 'VideoObject',
    contentUrl: fileOf(file.fileName),
    encodingFormat: file.type.replace(/;.*$/, ''),
    duration: isoDuration(seconds),
    ...(piece.film.picture === null ? {} : { thumbnailUrl: poster, width: file.width, height: file.height }),
    ...(piece.captions.length > 0
      ? {
          caption: piece.captions.map((language) => ({
            '@type': 'MediaObject' as const,
            contentUrl: fileOf(captionsName(piece.stem, language)),
            encodingFormat: 'text/vtt' as const,
            inLanguage: language,
          })),
        }
      : {}),
    ...said('dateCreated', piece.label.dateCreated),
    ...said('transcript', transcript?.cues.map(({ text }) => text).join('\n\n') ?? ''),
  };
}

/** A length as ISO 8601 has it, to a second: "PT1M12S". */
function isoDuration(seconds: number): string {
  const whole = Math.max(1, Math.round(seconds));
  const [hours, minutes] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60];
  return `PT${hours > 0 ? `${hours}H` : ''}${minutes > 0 ? `${minutes}M` : ''}${whole % 60}S`;
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
