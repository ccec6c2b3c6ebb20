import { compareFacts, type Difference, matchedPictures, type Spot } from './compare.ts';
import { type PictureFact, readFacts } from './facts.ts';

/** A page as it was sent, and the document that its address answers. `sent` is a fragment of HTML with its title in it. */
export interface ReadBack {
  readonly sent: string;
  readonly html: string;
  /** What the document should be called, and the language it should say (BCP 47). */
  readonly title: string;
  readonly language: string;
}

/** A picture that stands there, and which of those that were sent it is. */
export interface StandingPicture {
  readonly spot: Spot;
  readonly picture: PictureFact;
}

/** What differs, and the pictures that stand there, whose addresses are to be asked. Linear in the HTML, but for what is not found. */
export function compareReadBack({ sent, html, title, language }: ReadBack): {
  readonly differences: readonly Difference[];
  readonly pictures: readonly StandingPicture[];
} {
  const facts = readFacts(sent);
  const before = { ...facts, title, languages: facts.languages.length > 0 ? facts.languages : [language] };
  const found = readFacts(html);
  const pictures = matchedPictures(before.pictures, found.pictures).flatMap((place, at) => {
    const picture = place === null ? undefined : found.pictures[place];
    return picture ? [{ spot: { kind: 'picture', sent: at, found: place } as const, picture }] : [];
  });
  return { differences: compareFacts(before, found), pictures };
}
