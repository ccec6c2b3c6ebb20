import { parse } from 'parse5';
import { attribute, elementsIn, type HtmlElement, type HtmlNode, textOf } from '../page/html-tree.ts';
import { treeOfParsed } from '../page/parsed-tree.ts';

/** A picture as a page shows it (WHATWG HTML, 4.8.3). Sizes in px; null where the HTML does not say them. */
export interface PictureFact {
  readonly src: string;
  /** Null where there is no `alt` at all. */
  readonly alt: string | null;
  readonly width: number | null;
  readonly height: number | null;
  /** Whether it is loaded only when it is near the window. */
  readonly isLazy: boolean;
  /** Whether the browser may choose among several files. */
  readonly hasSizes: boolean;
  /** What the caption of its figure says. */
  readonly caption: string;
  /** Whether text runs beside it, as far as the HTML itself says so. */
  readonly isBeside: boolean;
}

/** A film or a recording in the browser's player (WHATWG HTML, 4.8.8 and 4.8.9). */
export interface FilmFact {
  /** As it is called for those who cannot see it. */
  readonly name: string;
  readonly sources: readonly string[];
  readonly tracks: readonly { readonly kind: string; readonly language: string; readonly src: string }[];
}

export interface LinkFact {
  readonly href: string;
  readonly words: string;
  /** Of the figure in whose caption it stands, as the address of the licence does; the empty text elsewhere. */
  readonly caption: string;
}

export interface HeadingFact {
  readonly level: number;
  readonly words: string;
}

/** What a page says and shows, as it can be compared with another state of it. */
export interface PageFacts {
  readonly title: string;
  /** The languages that it says of itself and of its parts (BCP 47), the document's own first. */
  readonly languages: readonly string[];
  readonly pictures: readonly PictureFact[];
  readonly links: readonly LinkFact[];
  /** The addresses of frames and players of other hosts. */
  readonly frames: readonly string[];
  readonly films: readonly FilmFact[];
  readonly headings: readonly HeadingFact[];
  /** Running words, each line of a block by itself, in reading order. */
  readonly lines: readonly string[];
}

type Mutable<T> = { -readonly [K in keyof T]: T[K] extends readonly (infer U)[] ? U[] : T[K] };

/** Where an element stands, as far as it matters to what is in it. */
interface Place {
  /** Of the figure that it stands in. */
  readonly caption: string;
  readonly isInCaption: boolean;
  readonly isBeside: boolean;
}

/**
 * What a document or a fragment of HTML says and shows. Linear in its length; never runs nor loads anything. Of a fragment the
 * title is empty.
 */
export function readFacts(html: string): PageFacts {
  const facts: Mutable<PageFacts> = {
    title: '',
    languages: [],
    pictures: [],
    links: [],
    frames: [],
    films: [],
    headings: [],
    lines: [],
  };
  readNodes(
    treeOfParsed(parse(html).childNodes),
    { caption: '', isInCaption: false, isBeside: false },
    facts,
  );
  return facts;
}

const NEVER_READ: ReadonlySet<string> = new Set(['script', 'style', 'template', 'noscript']);
/** Elements within a line (WHATWG HTML, phrasing content) that hold words. */
const IN_LINES: ReadonlySet<string> = new Set(
  'a abbr b bdi bdo br cite code data del dfn em font i ins kbd mark q s samp small span strong sub sup time u var wbr'.split(
    ' ',
  ),
);

function readNodes(nodes: readonly HtmlNode[], place: Place, facts: Mutable<PageFacts>): void {
  let line = '';
  const endLine = () => {
    const words = oneLine(line);
    if (words !== '') facts.lines.push(words);
    line = '';
  };
  for (const node of nodes) {
    if (typeof node === 'string') line += node;
    else if (IN_LINES.has(node.name) && !holdsMore(node)) {
      line += node.name === 'br' ? ' ' : textOf(node);
      readLinks(node, place, facts);
    } else {
      endLine();
      readElement(node, place, facts);
    }
  }
  endLine();
}

/** Whether an element of a line holds more than words, as a link round a picture does. */
const holdsMore = ({ children }: HtmlElement): boolean =>
  children.some((child) => typeof child !== 'string' && (!IN_LINES.has(child.name) || holdsMore(child)));

function readLinks(node: HtmlElement, place: Place, facts: Mutable<PageFacts>): void {
  readLink(node, place, facts);
  for (const child of node.children) if (typeof child !== 'string') readLinks(child, place, facts);
}

function readLink(node: HtmlElement, { caption, isInCaption }: Place, facts: Mutable<PageFacts>): void {
  const href = attribute(node, 'href');
  if (node.name === 'a' && href !== '')
    facts.links.push({ href, words: oneLine(textOf(node)), caption: isInCaption ? caption : '' });
}

function readElement(node: HtmlElement, place: Place, facts: Mutable<PageFacts>): void {
  const { name, children } = node;
  if (NEVER_READ.has(name)) return;
  if (name === 'title') {
    if (facts.title === '') facts.title = oneLine(textOf(node));
    return;
  }
  const language = attribute(node, 'lang').trim();
  if (language !== '') facts.languages.push(language);
  if (name === 'img') facts.pictures.push(pictureOf(node, place));
  if (FRAMES.has(name) && attribute(node, 'src') !== '') facts.frames.push(attribute(node, 'src'));
  if (name === 'video' || name === 'audio') facts.films.push(filmOf(node));
  readLink(node, place, facts);
  const level = /^h([1-6])$/.exec(name)?.[1];
  if (level !== undefined) facts.headings.push({ level: Number(level), words: oneLine(textOf(node)) });
  const caption = name === 'figure' ? captionIn(children) : place.caption;
  const isBeside = place.isBeside || (name !== 'body' && runsBeside(node));
  const before = facts.pictures.length;
  const isInCaption = place.isInCaption || name === 'figcaption';
  readNodes(children, { caption, isInCaption, isBeside }, facts);
  // A browser chooses among the sources that stand before the picture in its `picture`.
  if (name === 'picture' && children.some((child) => typeof child !== 'string' && child.name === 'source'))
    for (let at = before; at < facts.pictures.length; at += 1) {
      const picture = facts.pictures[at];
      if (picture) facts.pictures[at] = { ...picture, hasSizes: true };
    }
}

const FRAMES: ReadonlySet<string> = new Set(['iframe', 'embed']);

function filmOf(node: HtmlElement): FilmFact {
  const inside = [...elementsIn(node)];
  const of = (name: string) => inside.filter((one) => one.name === name && attribute(one, 'src') !== '');
  const own = attribute(node, 'src').trim();
  return {
    name: attribute(node, 'aria-label').trim(),
    sources: [...(own === '' ? [] : [own]), ...of('source').map((one) => attribute(one, 'src').trim())],
    tracks: of('track').map((one) => ({
      kind: attribute(one, 'kind').toLowerCase() || 'subtitles',
      language: attribute(one, 'srclang').toLowerCase(),
      src: attribute(one, 'src').trim(),
    })),
  };
}

function pictureOf(node: HtmlElement, { caption, isBeside }: Place): PictureFact {
  return {
    src: attribute(node, 'src').trim(),
    alt: node.attributes.find(({ name }) => name === 'alt')?.value ?? null,
    width: sizeOf(attribute(node, 'width')),
    height: sizeOf(attribute(node, 'height')),
    isLazy: attribute(node, 'loading').toLowerCase() === 'lazy',
    hasSizes: attribute(node, 'srcset').trim() !== '',
    caption,
    isBeside: isBeside || runsBeside(node),
  };
}

/** A size as HTML writes it (2.3.4.1, "non-negative integers"); null for none. */
const sizeOf = (text: string): number | null => (/^\s*\d{1,6}\s*$/.test(text) ? Number(text) : null);

/** By its own style or by the attribute of old: what a style sheet does is not known here. */
const runsBeside = (node: HtmlElement): boolean =>
  /(?:^|;)\s*float\s*:\s*(?:left|right|inline-start|inline-end)/i.test(attribute(node, 'style')) ||
  /^(?:left|right)$/i.test(attribute(node, 'align'));

function captionIn(children: readonly HtmlNode[]): string {
  const caption = children.find(
    (child): child is HtmlElement => typeof child !== 'string' && child.name === 'figcaption',
  );
  return caption ? oneLine(textOf(caption)) : '';
}

const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** The addresses that a document names at its head under a relation (WHATWG HTML, 4.6.7), as they stand. */
export function linkedAs(html: string, relation: string): readonly string[] {
  return treeOfParsed(parse(html).childNodes)
    .flatMap((node) => [...elementsIn(node)])
    .filter(
      (node) =>
        node.name === 'link' &&
        attribute(node, 'rel').toLowerCase().split(/\s+/).includes(relation) &&
        attribute(node, 'href') !== '',
    )
    .map((node) => attribute(node, 'href').trim());
}
