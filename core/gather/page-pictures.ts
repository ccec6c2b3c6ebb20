import { defaultTreeAdapter, parse, type DefaultTreeAdapterTypes as Tree } from 'parse5';
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
const NODE_LIMIT = 200_000;
/** Pictures said to be smaller than this on both edges are marks and buttons, not pictures. */
const ICON_PX = 48;
const PICTURE_FILE = /\.(jpe?g|png|webp|avif|gif|tiff?)$/i;

/**
 * Reads an HTML page for the pictures on it, largest first, and for what it says about each: JSON-LD `ImageObject`
 * (schema.org), `rel="license"` (HTML, RDFa), Open Graph, captions, alternative texts. Never throws for odd HTML;
 * malformed JSON-LD is passed over. `base` is the address that the page was read from.
 */
export function readPagePictures(html: string, base: string): PageReading {
  const page = collect(parse(html), base);
  const shared = page.statements;
  const byAddress = new Map<string, PagePicture>();
  for (const picture of [...page.images, ...imagesOfJsonLd(page.jsonLd, page.base), ...page.previews]) {
    const known = byAddress.get(picture.address);
    byAddress.set(picture.address, known ? joined(known, picture) : picture);
  }
  const all = [...byAddress.values()].map((picture) => ({
    ...picture,
    statements: statements(...picture.statements, ...shared),
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
    statements: [...one.statements, ...other.statements],
  };
}

interface Collected {
  title: string;
  base: string;
  images: PagePicture[];
  previews: PagePicture[];
  jsonLd: unknown[];
  statements: Statement[];
  leftOut: number;
}

type Element = Tree.Element;

/** Walks the page once with a stack of its own, since foreign HTML may be nested without bound. */
function collect(document: Tree.Document, address: string): Collected {
  const found: Collected = {
    title: '',
    base: address,
    images: [],
    previews: [],
    jsonLd: [],
    statements: [],
    leftOut: 0,
  };
  const openGraph = new Map<string, string>();
  const waiting: Tree.ChildNode[] = [...document.childNodes].reverse();
  for (let seen = 0; seen < NODE_LIMIT; seen += 1) {
    const node = waiting.pop();
    if (!node) break;
    if (!defaultTreeAdapter.isElementNode(node)) continue;
    visit(node, found, openGraph);
    for (let at = node.childNodes.length - 1; at >= 0; at -= 1) {
      const child = node.childNodes[at];
      if (child) waiting.push(child);
    }
  }
  addOpenGraph(openGraph, found);
  return found;
}

function visit(element: Element, found: Collected, openGraph: Map<string, string>): void {
  switch (element.tagName) {
    case 'base': {
      const href = absolute(attribute(element, 'href'), found.base);
      if (href) found.base = href;
      break;
    }
    case 'title':
      if (found.title === '') found.title = textOf(element).slice(0, 300);
      break;
    case 'meta': {
      const property = attribute(element, 'property') || attribute(element, 'name');
      const content = attribute(element, 'content');
      if (property && content && !openGraph.has(property)) openGraph.set(property.toLowerCase(), content);
      break;
    }
    case 'script':
      if (attribute(element, 'type').toLowerCase().trim() === 'application/ld+json') {
        const data = maybeJson(textOf(element));
        if (data !== undefined) found.jsonLd.push(data);
      }
      break;
    case 'img':
      addImage(element, found);
      break;
    case 'a':
    case 'link':
      // A licence link that stands in a figure is the figure's; elsewhere it is the page's.
      if (isLicenceLink(element) && !ancestor(element, 'figure')) {
        const said = maybeStatement('link', 'licence', absolute(attribute(element, 'href'), found.base));
        if (said) found.statements.push(said);
      }
  }
}

function addImage(img: Element, found: Collected): void {
  const chosen = largestSource(img, found.base);
  if (!chosen) return;
  const [width, height] = [pixels(attribute(img, 'width')), pixels(attribute(img, 'height'))];
  if (width > 0 && height > 0 && width < ICON_PX && height < ICON_PX) return;
  if (found.images.length >= PICTURE_LIMIT * 2) {
    found.leftOut += 1;
    return;
  }
  const scale = width > 0 && chosen.width > 0 ? chosen.width / width : 1;
  found.images.push({
    address: chosen.address,
    preview: absolute(attribute(img, 'src'), found.base) || chosen.address,
    width: Math.round(width * scale) || chosen.width,
    height: Math.round(height * scale),
    statements: statements(
      maybeStatement('page', 'alt', attribute(img, 'alt')),
      ...statementsOfFigure(img, found.base),
    ),
  });
}

/** The largest file that `srcset` names, a link to a larger picture, or `src`. */
function largestSource(
  img: Element,
  base: string,
): { readonly address: string; readonly width: number } | null {
  const src = absolute(attribute(img, 'src'), base);
  const candidates = attribute(img, 'srcset')
    .split(/,\s+|,(?=https?:)/)
    .flatMap((candidate) => {
      const [address = '', size = ''] = candidate.trim().split(/\s+/);
      const whole = absolute(address, base);
      return whole && /^\d+w$/.test(size) ? [{ address: whole, width: Number.parseInt(size, 10) }] : [];
    })
    .sort((a, b) => b.width - a.width);
  const link = ancestor(img, 'a');
  const linked = link ? absolute(attribute(link, 'href'), base) : '';
  if (linked && PICTURE_FILE.test(new URL(linked).pathname)) return { address: linked, width: 0 };
  return candidates[0] ?? (src ? { address: src, width: 0 } : null);
}

function statementsOfFigure(img: Element, base: string): readonly (Statement | null)[] {
  const figure = ancestor(img, 'figure');
  if (!figure) return [];
  const said: (Statement | null)[] = [];
  const waiting: Tree.ChildNode[] = [...figure.childNodes];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    if (!defaultTreeAdapter.isElementNode(node)) continue;
    if (node.tagName === 'figcaption') said.push(maybeStatement('caption', 'caption', textOf(node)));
    if ((node.tagName === 'a' || node.tagName === 'link') && isLicenceLink(node))
      said.push(maybeStatement('rdfa', 'licence', absolute(attribute(node, 'href'), base)));
    waiting.push(...node.childNodes);
  }
  return said;
}

function isLicenceLink(element: Element): boolean {
  const tokens = `${attribute(element, 'rel')} ${attribute(element, 'property')}`.toLowerCase().split(/\s+/);
  return tokens.some((token) => /^(license|licence|cc:license|dct:license|dcterms:license)$/.test(token));
}

function addOpenGraph(openGraph: ReadonlyMap<string, string>, found: Collected): void {
  const address = absolute(
    openGraph.get('og:image:secure_url') ?? openGraph.get('og:image') ?? '',
    found.base,
  );
  if (!address) return;
  found.previews.push({
    address,
    preview: address,
    width: pixels(openGraph.get('og:image:width') ?? ''),
    height: pixels(openGraph.get('og:image:height') ?? ''),
    statements: statements(
      maybeStatement('open-graph', 'title', openGraph.get('og:title')),
      maybeStatement('open-graph', 'alt', openGraph.get('og:image:alt')),
      maybeStatement('open-graph', 'source', openGraph.get('og:site_name')),
    ),
  });
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
        if (picture) pictures.push(picture);
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

/** A text or number, or what an object is called. */
function textValue(value: unknown): string {
  const one = firstOf(value);
  if (typeof one === 'string') return one;
  if (typeof one === 'number') return String(one);
  if (isRecord(one)) return textValue(one.name ?? one.value ?? one['@value'] ?? one.url ?? '');
  return '';
}

function maybeJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

function attribute(element: Element, name: string): string {
  return element.attrs.find((one) => one.name === name)?.value.trim() ?? '';
}

function ancestor(element: Element, tagName: string): Element | null {
  let depth = 0;
  for (let node: Tree.ParentNode | null = element.parentNode; node && depth < 200; depth += 1) {
    if (!defaultTreeAdapter.isElementNode(node)) return null;
    if (node.tagName === tagName) return node;
    node = node.parentNode;
  }
  return null;
}

const TEXT_LIMIT = 100_000;

function textOf(element: Element): string {
  const parts: string[] = [];
  let length = 0;
  const waiting: Tree.ChildNode[] = [...element.childNodes].reverse();
  for (let node = waiting.pop(); node && length < TEXT_LIMIT; node = waiting.pop()) {
    if (defaultTreeAdapter.isTextNode(node)) {
      parts.push(node.value);
      length += node.value.length;
    } else if (defaultTreeAdapter.isElementNode(node)) waiting.push(...[...node.childNodes].reverse());
  }
  const isData = element.tagName === 'script';
  return isData ? parts.join('') : parts.join(' ').replace(/\s+/g, ' ').trim();
}

/** A web address made whole; empty for anything that is not one. */
function absolute(address: string, base: string): string {
  if (address === '' || !URL.canParse(address, base)) return '';
  const url = new URL(address, base);
  return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : '';
}

/** A number of px as pages write it ("1600", "1600px"); 0 for anything else. */
function pixels(text: string): number {
  const number = Number(/^\s*(\d{1,6})(?:\.\d+)?\s*(?:px)?\s*$/.exec(text)?.[1] ?? 0);
  return number <= 100_000 ? number : 0;
}
