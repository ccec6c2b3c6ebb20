import { attributeText, readMarkup, type Tag } from '../embed/markup.ts';
import { oneLine } from '../words/one-line.ts';
import { maybeStatement, type Statement, statements } from './statement.ts';

/** A picture that a page shows, with all that the page says of it. Sizes in px, 0 where the page says none. */
export interface PagePicture {
  /** Absolute web address of the largest file that is named. */
  readonly address: string;
  /** A smaller file of the same picture to look at, or the same address. */
  readonly preview: string;
  readonly width: number;
  readonly height: number;
  readonly statements: readonly Statement[];
}

export interface PageReading {
  readonly title: string;
  readonly pictures: readonly PagePicture[];
  /** How many pictures were left out because a page may only have so many. */
  readonly leftOut: number;
}

const PICTURE_LIMIT = 200;
/** Pictures said to be smaller than this on both edges are marks and buttons, not pictures. */
const ICON_PX = 48;
const PICTURE_FILE = /\.(jpe?g|png|webp|avif|gif|tiff?)$/i;

/**
 * Reads an HTML page for the pictures on it, largest first, and for what it says about each: JSON-LD `ImageObject`
 * (schema.org), `rel="license"` (HTML, RDFa), Open Graph, captions, alternative texts. The tags are walked once and no
 * tree is built, so that the time is linear in the length whatever is nested in what. Never throws for odd HTML;
 * malformed JSON-LD is passed over. `base` is the address that the page was read from.
 */
export function readPagePictures(html: string, base: string): PageReading {
  const page = new PageWalk(html, base).walk();
  const byAddress = new Map<string, PagePicture>();
  for (const picture of [...page.images, ...imagesOfJsonLd(page.jsonLd, page.base), ...page.previews]) {
    const known = byAddress.get(picture.address);
    byAddress.set(picture.address, known ? joined(known, picture) : picture);
  }
  const all = [...byAddress.values()].map((picture) => ({
    ...picture,
    statements: statements(...picture.statements, ...page.licences),
  }));
  const largestFirst = all.sort((a, b) => b.width * b.height - a.width * a.height);
  return {
    title: page.title,
    pictures: largestFirst.slice(0, PICTURE_LIMIT),
    leftOut: Math.max(0, all.length - PICTURE_LIMIT) + page.leftOut,
  };
}

function joined(one: PagePicture, other: PagePicture): PagePicture {
  const larger = other.width * other.height > one.width * one.height ? other : one;
  return {
    ...one,
    width: larger.width,
    height: larger.height,
    statements: [...one.statements, ...other.statements].slice(0, STATEMENT_LIMIT),
  };
}

/** What a figure says of the pictures in it. */
interface Figure {
  caption: string;
  readonly licences: Statement[];
}

interface Image extends PagePicture {
  readonly figure: Figure | null;
}

/** More of one kind is of no use to anybody, and would have to be compared with all the rest. */
const IMAGE_LIMIT = 400;
const STATEMENT_LIMIT = 60;
const LICENCE_LIMIT = 20;
const SCRIPT_LIMIT = 50;
const DEPTH_LIMIT = 200;
const CAPTION_LIMIT = 5000;

/** Elements whose end ends a figure that was left open in them. */
const AROUND_FIGURES = new Set(['article', 'section', 'main', 'body']);

/** One walk over the tags and texts of a page. */
class PageWalk {
  readonly #html: string;
  readonly #openGraph = new Map<string, string>();
  readonly #jsonLd: unknown[] = [];
  readonly #licences: Statement[] = [];
  readonly #images: Image[] = [];
  readonly #figures: Figure[] = [];
  #base: string;
  #title: string | null = null;
  #isInTitle = false;
  #captions = 0;
  /** The address that is opened by what stands in the link that is open. */
  #link: string | null = null;
  #leftOut = 0;

  constructor(html: string, address: string) {
    this.#html = html;
    this.#base = address;
  }

  walk() {
    const pieces = readMarkup(this.#html, 'text');
    let script: Tag | null = null;
    for (const piece of pieces) {
      // What a script holds is no text: it stands between its tag and the next piece.
      if (script) this.#addScript(script.to, piece.from);
      script = piece.kind === 'start' && isJsonLd(piece) ? piece : null;
      if (piece.kind === 'text') this.#addText(piece.text);
      else if (piece.kind === 'start') this.#open(piece);
      else this.#close(piece.name);
    }
    if (script) this.#addScript(script.to, this.#html.length);
    return {
      title: oneLine(this.#title ?? ''),
      base: this.#base,
      images: this.#images.map(withFigure),
      previews: openGraphPicture(this.#openGraph, this.#base),
      jsonLd: this.#jsonLd,
      licences: this.#licences,
      leftOut: this.#leftOut,
    };
  }

  #open(tag: Tag): void {
    switch (tag.name) {
      case 'base':
        this.#base = absolute(attributeText(tag, 'href'), this.#base) || this.#base;
        break;
      case 'title':
        this.#isInTitle = this.#title === null;
        break;
      case 'meta':
        this.#addMeta(tag);
        break;
      case 'figure':
        if (this.#figures.length < DEPTH_LIMIT) this.#figures.push({ caption: '', licences: [] });
        break;
      case 'figcaption':
        this.#captions += 1;
        break;
      case 'img':
        this.#addImage(tag);
        break;
      case 'a':
      case 'link':
        this.#addLink(tag);
    }
  }

  #close(name: string): void {
    if (name === 'title') this.#isInTitle = false;
    else if (name === 'figcaption') this.#captions = Math.max(0, this.#captions - 1);
    else if (name === 'a') this.#link = null;
    else if (name === 'figure') this.#figures.pop();
    else if (AROUND_FIGURES.has(name)) this.#figures.length = 0;
    if (this.#figures.length === 0) this.#captions = 0;
  }

  #addText(text: string): void {
    const figure = this.#figures.at(-1);
    if (this.#isInTitle) this.#title = `${this.#title ?? ''}${text}`.slice(0, CAPTION_LIMIT);
    else if (figure && this.#captions > 0 && figure.caption.length < CAPTION_LIMIT)
      figure.caption += `${text.slice(0, CAPTION_LIMIT)} `;
  }

  #addMeta(tag: Tag): void {
    const property = attributeText(tag, 'property') || attributeText(tag, 'name');
    const content = attributeText(tag, 'content');
    if (OPEN_GRAPH.test(property) && content && !this.#openGraph.has(property.toLowerCase()))
      this.#openGraph.set(property.toLowerCase(), content);
  }

  #addLink(tag: Tag): void {
    const href = attributeText(tag, 'href');
    if (tag.name === 'a') this.#link = href;
    if (!isLicenceLink(tag)) return;
    // A licence link that stands in a figure is the figure's; elsewhere it is the page's.
    const figure = this.#figures.at(-1);
    const list = figure?.licences ?? this.#licences;
    const said = maybeStatement(figure ? 'rdfa' : 'link', 'licence', absolute(href, this.#base));
    if (said && list.length < LICENCE_LIMIT && !list.some(({ value }) => value === said.value))
      list.push(said);
  }

  #addImage(tag: Tag): void {
    const chosen = largestSource(tag, this.#base, this.#link);
    if (!chosen) return;
    const [width, height] = [pixels(attributeText(tag, 'width')), pixels(attributeText(tag, 'height'))];
    if (width > 0 && height > 0 && width < ICON_PX && height < ICON_PX) return;
    if (this.#images.length >= IMAGE_LIMIT) {
      this.#leftOut += 1;
      return;
    }
    const scale = width > 0 && chosen.width > 0 ? chosen.width / width : 1;
    this.#images.push({
      address: chosen.address,
      preview: absolute(attributeText(tag, 'src'), this.#base) || chosen.address,
      width: Math.round(width * scale) || chosen.width,
      height: Math.round(height * scale),
      statements: statements(maybeStatement('page', 'alt', attributeText(tag, 'alt'))),
      figure: this.#figures.at(-1) ?? null,
    });
  }

  #addScript(from: number, to: number): void {
    if (this.#jsonLd.length >= SCRIPT_LIMIT) return;
    const data = maybeJson(this.#html.slice(from, to));
    if (data !== undefined) this.#jsonLd.push(data);
  }
}

/** A picture with what its figure says, which may stand after it. */
function withFigure({ figure, ...picture }: Image): PagePicture {
  if (!figure) return picture;
  const caption = maybeStatement('caption', 'caption', figure.caption);
  return { ...picture, statements: statements(...picture.statements, caption, ...figure.licences) };
}

function isJsonLd(tag: Tag): boolean {
  return tag.name === 'script' && attributeText(tag, 'type').toLowerCase() === 'application/ld+json';
}

/** How many of a `srcset` are looked at. */
const SOURCE_LIMIT = 50;

/** The largest file that `srcset` names, the picture that a link round it opens, or `src`. */
function largestSource(
  img: Tag,
  base: string,
  link: string | null,
): { readonly address: string; readonly width: number } | null {
  const linked = link === null ? '' : absolute(link, base);
  if (linked && PICTURE_FILE.test(new URL(linked).pathname)) return { address: linked, width: 0 };
  const candidates = attributeText(img, 'srcset')
    .slice(0, 100_000)
    .split(/,\s+|,(?=https?:)/, SOURCE_LIMIT)
    .flatMap((candidate) => {
      const [address = '', size = ''] = candidate.trim().split(/\s+/, 2);
      const whole = absolute(address, base);
      return whole && /^\d{1,6}w$/.test(size) ? [{ address: whole, width: Number.parseInt(size, 10) }] : [];
    })
    .sort((a, b) => b.width - a.width);
  const src = absolute(attributeText(img, 'src'), base);
  return candidates[0] ?? (src ? { address: src, width: 0 } : null);
}

const LICENCE_TOKENS = new Set(['license', 'licence', 'cc:license', 'dct:license', 'dcterms:license']);

function isLicenceLink(tag: Tag): boolean {
  const tokens = `${attributeText(tag, 'rel')} ${attributeText(tag, 'property')}`
    .slice(0, 1000)
    .toLowerCase();
  return tokens.split(/\s+/).some((token) => LICENCE_TOKENS.has(token));
}

const OPEN_GRAPH = /^og:(title|site_name|image(:(secure_url|width|height|alt))?)$/i;

function openGraphPicture(said: ReadonlyMap<string, string>, base: string): readonly PagePicture[] {
  const address = absolute(said.get('og:image:secure_url') ?? said.get('og:image') ?? '', base);
  if (!address) return [];
  return [
    {
      address,
      preview: address,
      width: pixels(said.get('og:image:width') ?? ''),
      height: pixels(said.get('og:image:height') ?? ''),
      statements: statements(
        maybeStatement('open-graph', 'title', said.get('og:title')),
        maybeStatement('open-graph', 'alt', said.get('og:image:alt')),
        maybeStatement('open-graph', 'source', said.get('og:site_name')),
      ),
    },
  ];
}

const OBJECT_LIMIT = 5000;

/** Every ImageObject in the page's JSON-LD, however deep, up to a bound. */
function imagesOfJsonLd(data: readonly unknown[], base: string): readonly PagePicture[] {
  const pictures: PagePicture[] = [];
  const waiting: unknown[] = [...data];
  for (let seen = 0; seen < OBJECT_LIMIT; seen += 1) {
    const value = waiting.pop();
    if (value === undefined && waiting.length === 0) break;
    if (Array.isArray(value)) waiting.push(...value.slice(0, 500));
    else if (isRecord(value)) {
      if (isOfType(value, /^(ImageObject|Photograph|https?:\/\/schema\.org\/ImageObject)$/)) {
        const picture = pictureOfObject(value, base);
        if (picture && pictures.length < IMAGE_LIMIT) pictures.push(picture);
      }
      waiting.push(...Object.values(value).slice(0, 500));
    }
  }
  return pictures.reverse();
}

function pictureOfObject(object: Readonly<Record<string, unknown>>, base: string): PagePicture | null {
  const address = absolute(textValue(object.contentUrl) || textValue(object.url), base);
  if (!address) return null;
  const creator = firstOf(object.creator ?? object.author);
  const say = (about: Statement['about'], value: unknown) =>
    maybeStatement('json-ld', about, textValue(value));
  return {
    address,
    preview: absolute(textValue(firstOf(object.thumbnailUrl ?? object.thumbnail)), base) || address,
    width: pixels(textValue(object.width)),
    height: pixels(textValue(object.height)),
    statements: statements(
      say('title', object.name ?? object.headline),
      say('maker', creator),
      maybeStatement('json-ld', 'maker-address', isRecord(creator) ? textValue(creator.url) : ''),
      say(
        'licence',
        isRecord(object.license) ? (object.license.url ?? object.license['@id']) : object.license,
      ),
      say('notice', object.copyrightNotice),
      say('credit', object.creditText),
      say('caption', object.caption),
      say('source-id', object.identifier),
      say('taken', object.dateCreated),
      say('source', object.provider ?? object.publisher ?? object.sourceOrganization),
    ),
  };
}

function isOfType(object: Readonly<Record<string, unknown>>, type: RegExp): boolean {
  const types = object['@type'];
  return (Array.isArray(types) ? types : [types]).some((one) => typeof one === 'string' && type.test(one));
}

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

function firstOf(value: unknown): unknown {
  return Array.isArray(value) ? value[0] : value;
}

const NAME_DEPTH = 5;

/** A text or number, or what an object is called. */
function textValue(value: unknown, depth = 0): string {
  const one = firstOf(value);
  if (typeof one === 'string') return one;
  if (typeof one === 'number') return String(one);
  if (isRecord(one) && depth < NAME_DEPTH)
    return textValue(one.name ?? one.value ?? one['@value'] ?? one.url ?? '', depth + 1);
  return '';
}

function maybeJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** Longer ones are no addresses that anybody could be sent to. */
const ADDRESS_LIMIT = 4000;

/** A web address made whole; empty for anything that is not one. */
function absolute(address: string, base: string): string {
  if (address === '' || address.length > ADDRESS_LIMIT || !URL.canParse(address, base)) return '';
  const url = new URL(address, base);
  return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : '';
}

/** A number of px as pages write it ("1600", "1600px"); 0 for anything else. */
function pixels(text: string): number {
  const number = Number(/^(\d{1,6})(?:\.\d{1,9})?\s{0,3}(?:px)?$/.exec(text.slice(0, 40).trim())?.[1] ?? 0);
  return number <= 100_000 ? number : 0;
}
