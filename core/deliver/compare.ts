import type { FilmFact, HeadingFact, LinkFact, PageFacts, PictureFact } from './facts.ts';

/** What can come out otherwise on the way, by what it is about; `lost` is what readers miss, the others they do not. */
interface DifferenceValues {
  'picture-lost': { readonly name: string };
  'picture-unanswered': { readonly name: string; readonly status: number };
  'alt-lost': { readonly name: string; readonly alt: string };
  'alt-differs': { readonly name: string; readonly alt: string; readonly found: string };
  'size-lost': { readonly name: string };
  'caption-lost': { readonly name: string; readonly caption: string };
  'caption-loose': { readonly name: string };
  'beside-lost': { readonly name: string };
  'sizes-lost': { readonly name: string };
  'frame-lost': { readonly host: string };
  'film-lost': { readonly name: string };
  'film-unanswered': { readonly name: string; readonly status: number };
  'captions-lost': { readonly name: string; readonly languages: readonly string[] };
  'captions-unanswered': { readonly name: string; readonly language: string; readonly status: number };
  'link-lost': { readonly words: string };
  'link-dead': { readonly words: string; readonly href: string };
  'link-moved': { readonly words: string; readonly found: string };
  'link-differs': { readonly words: string; readonly href: string; readonly found: string };
  'heading-lost': { readonly words: string };
  'heading-level': { readonly words: string; readonly level: number; readonly found: number };
  'words-lost': { readonly count: number; readonly first: string };
  'title-differs': { readonly title: string; readonly found: string };
  'language-differs': { readonly language: string; readonly found: string };
  /** Sizes in px, as "1440 × 960". */
  'picture-smaller': { readonly name: string; readonly size: string; readonly found: string };
  'picture-reshaped': { readonly name: string; readonly size: string; readonly found: string };
  /** In bytes. */
  'page-heavy': { readonly bytes: number; readonly budget: number };
  'listing-missing': { readonly title: string };
  'listing-title': { readonly title: string };
  'listing-summary': { readonly summary: string };
  'listing-cut': { readonly last: string };
  'listing-picture': { readonly name: string };
  'listing-alt': { readonly alt: string; readonly found: string };
}
export type DifferenceCode = keyof DifferenceValues;

/** Where it stands in both states: the place in the list of its kind; null where it is not there. */
export interface Spot {
  readonly kind: 'picture' | 'heading';
  readonly sent: number;
  readonly found: number | null;
}

type OfCode<C extends DifferenceCode> = {
  readonly code: C;
  readonly values: DifferenceValues[C];
  readonly spot: Spot | null;
};
export type Difference = { [C in DifferenceCode]: OfCode<C> }[DifferenceCode];

const LOST: ReadonlySet<DifferenceCode> = new Set([
  'picture-lost',
  'picture-unanswered',
  'alt-lost',
  'size-lost',
  'caption-lost',
  'beside-lost',
  'frame-lost',
  'film-lost',
  'film-unanswered',
  'captions-lost',
  'captions-unanswered',
  'link-lost',
  'link-differs',
  'link-dead',
  'heading-lost',
  'words-lost',
  'title-differs',
  'language-differs',
  'picture-smaller',
  'picture-reshaped',
  'page-heavy',
  'listing-missing',
  'listing-summary',
  'listing-picture',
  'listing-alt',
] satisfies DifferenceCode[]);

/** Whether readers miss something by it; the rest is only otherwise than it was sent. */
export const isLost = ({ code }: Pick<Difference, 'code'>): boolean => LOST.has(code);

/**
 * What of a page that was sent does not stand where it was sent to, or stands there otherwise. The site's own parts round it are
 * passed over: each thing that was sent is looked for in what was found, and nothing the other way round. What is lost comes first.
 */
export function compareFacts(sent: PageFacts, found: PageFacts): readonly Difference[] {
  const said = new Set(found.lines.map(plain));
  const all = said.size > 0 ? [...said].join('\n') : '';
  const isSaid = (words: string) => said.has(plain(words)) || all.includes(plain(words));
  const differences = [
    ...picturesOf(sent, found, isSaid),
    ...framesOf(sent, found),
    ...filmsOf(sent, found),
    ...headingsOf(sent, found),
    ...linksOf(sent, found, isSaid),
    ...wordsOf(sent, isSaid),
    ...headOf(sent, found),
  ];
  return [...differences.filter(isLost), ...differences.filter((one) => !isLost(one))];
}

const plain = (words: string): string => words.replace(/\s+/g, ' ').trim().toLowerCase();

function picturesOf(
  sent: PageFacts,
  found: PageFacts,
  isSaid: (words: string) => boolean,
): readonly Difference[] {
  const places = matchedPictures(sent.pictures, found.pictures);
  return sent.pictures.flatMap((picture, at): Difference[] => {
    const place = places[at] ?? null;
    const name = nameOf(picture);
    const there = place === null ? undefined : found.pictures[place];
    const spot: Spot = { kind: 'picture', sent: at, found: place };
    if (!there) return [{ code: 'picture-lost', values: { name }, spot }];
    const { alt } = picture;
    const differences: Difference[] = [];
    if (alt !== null && alt.trim() !== '' && (there.alt ?? '').trim() === '')
      differences.push({ code: 'alt-lost', values: { name, alt }, spot });
    else if (alt !== null && plain(there.alt ?? '') !== plain(alt))
      differences.push({ code: 'alt-differs', values: { name, alt, found: there.alt ?? '' }, spot });
    if (picture.width !== null && (there.width === null || there.height === null))
      differences.push({ code: 'size-lost', values: { name }, spot });
    if (picture.caption !== '' && plain(there.caption) !== plain(picture.caption))
      differences.push(
        isSaid(picture.caption)
          ? { code: 'caption-loose', values: { name }, spot }
          : { code: 'caption-lost', values: { name, caption: picture.caption }, spot },
      );
    if (picture.isBeside && !there.isBeside)
      differences.push({ code: 'beside-lost', values: { name }, spot });
    if (picture.hasSizes && !there.hasSizes) differences.push({ code: 'sizes-lost', values: { name }, spot });
    return differences;
  });
}

/**
 * For each picture that was sent, where it stands in what was found: under its address; else in its order, the next with the same
 * alt text or file name, for a site may keep files under addresses of its own.
 */
export function matchedPictures(
  sent: readonly PictureFact[],
  found: readonly PictureFact[],
): readonly (number | null)[] {
  const free = new Map<string, number[]>();
  const note = (key: string, at: number) => {
    const places = free.get(key);
    if (places) places.push(at);
    else free.set(key, [at]);
  };
  for (const [at, picture] of found.entries()) for (const key of keysOf(picture)) note(key, at);
  const taken = new Set<number>();
  const take = (key: string): number | null => {
    const places = free.get(key) ?? [];
    while (places.length > 0) {
      const at = places.shift() ?? 0;
      if (taken.has(at)) continue;
      taken.add(at);
      return at;
    }
    return null;
  };
  const places = sent.map((picture) => take(keysOf(picture)[0] ?? ''));
  return places.map((place, at) => {
    if (place !== null) return place;
    const [, ...others] = sent[at] ? keysOf(sent[at]) : [];
    for (const key of others) {
      const other = take(key);
      if (other !== null) return other;
    }
    return null;
  });
}

/** What a picture can be known by, the surest first. */
function keysOf(picture: PictureFact): readonly string[] {
  const alt = plain(picture.alt ?? '');
  const stem = stemOf(picture.src);
  return [`src ${picture.src}`, ...(stem ? [`stem ${stem}`] : []), ...(alt ? [`alt ${alt}`] : [])];
}

/** Its file name without the size and type that a site may have given it. */
function stemOf(src: string): string {
  const file = src.split(/[?#]/)[0]?.split('/').at(-1) ?? '';
  return file.replace(/\.[a-z0-9]{1,5}$/i, '').replace(/-\d{2,5}(?:x\d{2,5})?$/, '');
}

const nameOf = ({ alt, src }: PictureFact): string => (alt?.trim() ? alt.trim() : fileOf(src));
const fileOf = (src: string): string => src.split(/[?#]/)[0]?.split('/').at(-1) || src;

function framesOf(sent: PageFacts, found: PageFacts): readonly Difference[] {
  const there = new Set(found.frames);
  return sent.frames.flatMap((src): Difference[] =>
    there.has(src) ? [] : [{ code: 'frame-lost', values: { host: hostOf(src) }, spot: null }],
  );
}

/** For each film that was sent, the one that stands there: of the same file or the same name. */
export function matchedFilms(
  sent: readonly FilmFact[],
  found: readonly FilmFact[],
): readonly (FilmFact | null)[] {
  const free = [...found];
  const take = (is: (film: FilmFact) => boolean): FilmFact | null => {
    const at = free.findIndex(is);
    return at < 0 ? null : (free.splice(at, 1)[0] ?? null);
  };
  const stemsOf = ({ sources }: FilmFact) => sources.map(stemOf);
  return sent.map((film) => {
    const stems = new Set(stemsOf(film));
    const isSame = (other: FilmFact) => stemsOf(other).some((stem) => stems.has(stem));
    return take(isSame) ?? take((other) => film.name !== '' && plain(other.name) === plain(film.name));
  });
}

function filmsOf(sent: PageFacts, found: PageFacts): readonly Difference[] {
  const places = matchedFilms(sent.films, found.films);
  return sent.films.flatMap((film, at): Difference[] => {
    const name = film.name || fileOf(film.sources[0] ?? '');
    const there = places[at];
    if (!there || (film.sources.length > 0 && there.sources.length === 0))
      return [{ code: 'film-lost', values: { name }, spot: null }];
    const kept = new Set(there.tracks.map(({ kind, language }) => `${kind} ${language}`));
    const languages = film.tracks.flatMap(({ kind, language }) =>
      kind === 'captions' && !kept.has(`${kind} ${language}`) ? [language] : [],
    );
    return languages.length > 0 ? [{ code: 'captions-lost', values: { name, languages }, spot: null }] : [];
  });
}

const hostOf = (address: string): string => (URL.canParse(address) ? new URL(address).host : address);

function headingsOf(sent: PageFacts, found: PageFacts): readonly Difference[] {
  const there = new Map<string, { readonly heading: HeadingFact; readonly at: number }>();
  for (const [at, heading] of found.headings.entries())
    if (!there.has(plain(heading.words))) there.set(plain(heading.words), { heading, at });
  return sent.headings.flatMap((heading, at): Difference[] => {
    const { words, level } = heading;
    const other = there.get(plain(words));
    const spot: Spot = { kind: 'heading', sent: at, found: other?.at ?? null };
    if (!other) return [{ code: 'heading-lost', values: { words }, spot }];
    return other.heading.level === level
      ? []
      : [{ code: 'heading-level', values: { words, level, found: other.heading.level }, spot }];
  });
}

function linksOf(
  sent: PageFacts,
  found: PageFacts,
  isSaid: (words: string) => boolean,
): readonly Difference[] {
  const whole = new Set(found.links.map(({ href, words }) => `${href} ${plain(words)}`));
  const byWords = new Map(found.links.map(({ href, words }) => [plain(words), href]));
  const hrefs = new Set(found.links.map(({ href }) => href));
  return sent.links.flatMap((link): Difference[] => {
    const { href, words, caption } = link;
    // It went with its caption, of which is told already.
    if (caption !== '' && !isSaid(caption)) return [];
    if (whole.has(`${href} ${plain(words)}`) || (words === '' && hrefs.has(href))) return [];
    const other = words === '' ? undefined : byWords.get(plain(words));
    return [
      other === undefined
        ? { code: 'link-lost', values: { words: words || nameOfLink(link) }, spot: null }
        : { code: 'link-differs', values: { words, href, found: other }, spot: null },
    ];
  });
}

const nameOfLink = ({ href }: LinkFact): string => href;

/** Lines of text that are not there; captions and headings are told of by themselves. */
function wordsOf({ lines, headings, pictures }: PageFacts, isSaid: (words: string) => boolean): Difference[] {
  const elsewhere = new Set([
    ...headings.map(({ words }) => plain(words)),
    ...pictures.map(({ caption }) => plain(caption)),
  ]);
  const gone = lines.filter((line) => !isSaid(line) && !isPartOf(elsewhere, line));
  const [first] = gone;
  return first === undefined
    ? []
    : [{ code: 'words-lost', values: { count: gone.length, first }, spot: null }];
}

function isPartOf(said: ReadonlySet<string>, line: string): boolean {
  const words = plain(line);
  for (const one of said) if (one.includes(words)) return true;
  return false;
}

function headOf(sent: PageFacts, found: PageFacts): readonly Difference[] {
  const differences: Difference[] = [];
  if (sent.title !== '' && !plain(found.title).includes(plain(sent.title)))
    differences.push({
      code: 'title-differs',
      values: { title: sent.title, found: found.title },
      spot: null,
    });
  const [language] = sent.languages;
  if (language !== undefined && !found.languages.some((one) => isSameLanguage(one, language)))
    differences.push({
      code: 'language-differs',
      values: { language, found: found.languages[0] ?? '' },
      spot: null,
    });
  return differences;
}

const isSameLanguage = (one: string, other: string): boolean => one.toLowerCase() === other.toLowerCase();
