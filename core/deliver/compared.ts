import { escapeHtml } from '../page/escape.ts';
import { compareFacts, type Difference, matchedFilms, matchedPictures, type Spot } from './compare.ts';
import { type FilmFact, type LinkFact, type PictureFact, readFacts } from './facts.ts';
import { type Filter, keptOf } from './filter.ts';

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
  /** As it was sent. */
  readonly sent: PictureFact;
  readonly picture: PictureFact;
}

/** A film that stands there, as it was called; its files are to be asked. */
export type StandingFilm = FilmFact;

/** What differs, and the pictures that stand there and the links that were sent, whose addresses are to be asked. Linear in the HTML, but for what is not found. */
export function compareReadBack({ sent, html, title, language }: ReadBack): {
  readonly differences: readonly Difference[];
  readonly pictures: readonly StandingPicture[];
  readonly links: readonly LinkFact[];
  readonly films: readonly StandingFilm[];
} {
  const facts = readFacts(sent);
  const before = { ...facts, title, languages: facts.languages.length > 0 ? facts.languages : [language] };
  const found = readFacts(html);
  const pictures = matchedPictures(before.pictures, found.pictures).flatMap((place, at) => {
    const picture = place === null ? undefined : found.pictures[place];
    const sentAs = before.pictures[at];
    const spot = { kind: 'picture', sent: at, found: place } as const;
    return picture && sentAs ? [{ spot, sent: sentAs, picture }] : [];
  });
  // Those of ours: what the site itself leads to is no matter of this page.
  const links = [...new Map(facts.links.map((link) => [link.href, link])).values()];
  const films = matchedFilms(before.films, found.films).flatMap((there, at) => {
    const name = before.films[at]?.name ?? '';
    return there ? [{ name, sources: there.sources, tracks: there.tracks }] : [];
  });
  return { differences: compareFacts(before, found), pictures, links, films };
}

/** A page before it is sent, written as its target is sent it, and what the target does not keep. */
export interface Foreseen extends Omit<ReadBack, 'html'> {
  readonly filter: Filter;
}

/** What will stand there, and what will differ from what is sent. Linear in the HTML, but for what is not found. */
export function foreseen({ filter, ...page }: Foreseen): {
  readonly html: string;
  readonly differences: readonly Difference[];
} {
  const html = keptOf(page.sent, filter);
  // The site says itself what a page is called, and in which language it is.
  const whole = `<!doctype html><html lang="${page.language}"><title>${escapeHtml(page.title)}</title>${html}`;
  return { html, differences: compareReadBack({ ...page, html: whole }).differences };
}
