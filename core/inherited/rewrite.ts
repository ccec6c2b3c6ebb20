import { parseFragment } from 'parse5';
import type { Hosts } from '../embed/host.ts';
import { type EmbedReading, type ReadEmbed, readPasted } from '../embed/reading.ts';
import { namedFiles } from '../gather/image-source.ts';
import { absolute, isPictureFile, nameInAllSizes, pixels } from '../gather/page-address.ts';
import type { PagePicture } from '../gather/page-pictures.ts';
import { firstSaid } from '../gather/reading.ts';
import { isLayoutTable } from '../page/blocks/table/read.ts';
import { declaredIn } from '../page/declared.ts';
import {
  attribute,
  elementsIn,
  type HtmlElement,
  type HtmlNode,
  hasClass,
  textOf,
} from '../page/html-tree.ts';
import { treeOfParsed } from '../page/parsed-tree.ts';
import { codeOf } from './code-of.ts';
import type { InheritedEmbed, InheritedFile, InheritedLink, PictureUse, SaidWidth } from './reading.ts';
import { spotOf } from './spots.ts';

/** Where the marker of a picture or of an embed leads, by its place in its list. */
const IN_PAGE = 'https://in-page.invalid/';
const MARKER = 'data-in-page';

/** The place in the list of uses that the address of a picture names; null for any other. */
export const pictureAt = (address: string): number | null =>
  address.startsWith(IN_PAGE) ? Number(address.slice(IN_PAGE.length)) : null;

/** The place in the list of embeds that the code of a frame names; null for any other. */
export function embedAt(code: string): number | null {
  const at = new RegExp(` ${MARKER}="(\\d{1,6})"`).exec(code)?.[1];
  return at === undefined ? null : Number(at);
}

/** Where a node stands, as far as it matters to what is in it. */
interface Place {
  /** What a link round it leads to, whole; empty for none. */
  readonly link: string;
  readonly caption: string;
  readonly side: PictureUse['side'];
  readonly width: SaidWidth;
  readonly isCode: boolean;
  /** Whether the table about it only lays out the page. */
  readonly isLaidOut: boolean;
}

const NOWHERE: Place = { link: '', caption: '', side: null, width: null, isCode: false, isLaidOut: false };

/** Of something framed that is not there any more, or that cannot be embedded. */
interface Refused {
  readonly spot: number;
  readonly why: string;
}

/** Documents, films and recordings that words lead to. */
const DOCUMENT_FILE =
  /\.(?:pdf|docx|xlsx|pptx|odt|ods|odp|rtf|csv|txt|mp4|m4v|mov|webm|mkv|mp3|m4a|wav|ogg|flac)$/i;

/**
 * Goes through the tree of an inherited page once, and puts markers of its own in the place of pictures and of what is framed:
 * the reader of pages (`core/page`) then reads all else, and the markers say what stood where. What is found on the way is in its lists.
 */
export class Rewriting {
  readonly files: InheritedFile[] = [];
  readonly uses: PictureUse[] = [];
  readonly embeds: InheritedEmbed[] = [];
  readonly links: InheritedLink[] = [];
  readonly documents: InheritedLink[] = [];
  readonly refused: Refused[] = [];
  /** Players that no browser has, and whether what they played was found. */
  readonly dead: { readonly spot: number; readonly leads: boolean }[] = [];
  readonly codeInText: number[] = [];
  readonly frames: { readonly spot: number; readonly address: string }[] = [];
  readonly writing: number[] = [];
  readonly insecure: number[] = [];
  readonly filmsWithoutCaptions: number[] = [];
  /** Names of the files that only decorate the page, or count its readers. */
  readonly decoration: string[] = [];
  readonly #base: string;
  readonly #hosts: Hosts;
  readonly #pictures = new Map<string, PagePicture>();
  readonly #fileAt = new Map<PagePicture, number>();
  #last: { readonly file: number; readonly use: number } | null = null;

  constructor(base: string, hosts: Hosts, pictures: readonly PagePicture[]) {
    this.#base = base;
    this.#hosts = hosts;
    for (const picture of pictures)
      for (const key of keysOf(picture)) if (!this.#pictures.has(key)) this.#pictures.set(key, picture);
  }

  rewritten(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
    return this.#all(nodes, NOWHERE);
  }

  #all(nodes: readonly HtmlNode[], place: Place): HtmlNode[] {
    const out: HtmlNode[] = [];
    for (let at = 0; at < nodes.length; at += 1) {
      const node = nodes[at];
      if (node === undefined) continue;
      const widget = typeof node === 'string' ? null : this.#widget(node, nodes, at, place);
      if (widget) {
        out.push(...widget.nodes);
        at = widget.last;
      } else out.push(...this.#one(node, place));
    }
    return out;
  }

  #one(node: HtmlNode, place: Place): readonly HtmlNode[] {
    if (typeof node === 'string') return this.#text(node, place);
    switch (node.name) {
      case 'script':
        if (/\bdocument\.write(?:ln)?\s*\(/.test(textOf(node))) this.writing.push(...spotsAt(node));
        return [];
      case 'style':
        return [];
      // What stands there for those without frames is text to a parser.
      case 'noframes':
        return this.#all(treeOfParsed(parseFragment(textOf(node)).childNodes), place);
      case 'noscript':
        return holdsMedia(node) ? this.#all(node.children, place) : [];
      case 'img':
        return this.#image(node, [], place);
      case 'picture': {
        const img = [...elementsIn(node)].find(({ name }) => name === 'img');
        const sources = [...elementsIn(node)].filter(({ name }) => name === 'source');
        return img ? this.#image(img, sources, place) : [];
      }
      case 'iframe':
      case 'video':
      case 'audio':
        return this.#framed(node);
      case 'frame': {
        const address = absolute(attribute(node, 'src'), this.#base);
        if (address !== '') this.frames.push({ spot: spotOf(node), address });
        return [];
      }
      case 'object':
      case 'embed':
      case 'applet':
        return this.#player(node, place);
      case 'a':
        return this.#link(node, place);
      default:
        return [this.#inside(node, place)];
    }
  }

  #inside(node: HtmlElement, place: Place): HtmlElement {
    const declared = declaredIn(node);
    const caption = node.name === 'figure' ? captionIn(node) : place.caption;
    const isFigure = node.name === 'figure' || holdsOnePicture(node);
    const inner: Place = {
      ...place,
      caption,
      side: (isFigure ? sideOf(node) : null) ?? (node.name === 'center' ? 'centre' : place.side),
      width: isFigure ? (widthOf(node) ?? place.width) : place.width,
      isLaidOut: node.name === 'table' ? isLayoutTable(node) : place.isLaidOut,
      isCode: place.isCode || /^(?:pre|code|textarea|samp|kbd)$/.test(node.name),
    };
    const before = this.uses.length;
    const children =
      node.name === 'tr' && place.isLaidOut ? this.#row(node, inner) : this.#all(node.children, inner);
    const background = this.#background(node, declared.get('background-image') ?? declared.get('background'));
    if (node.name === 'p') this.#putFirst(children);
    const said = node.name === 'figure' && caption !== '' && this.uses.length > before;
    return {
      ...node,
      children: [
        ...background,
        // It stands with the picture from now on.
        ...(said
          ? children.filter((child) => typeof child === 'string' || child.name !== 'figcaption')
          : children),
      ],
    };
  }

  /** What text runs beside stands before it, wherever in its paragraph it was put. */
  #putFirst(children: HtmlNode[]): void {
    const isBeside = (node: HtmlNode): boolean => {
      const at = typeof node === 'string' ? null : pictureAt(attribute(node, 'src'));
      const side = at === null ? null : this.uses[at]?.side;
      return side === 'left' || side === 'right';
    };
    const beside = children.filter(isBeside);
    if (beside.length > 0)
      children.splice(0, children.length, ...beside, ...children.filter((one) => !isBeside(one)));
  }

  /** Of a picture in one cell and text in the other, the text runs beside the picture. */
  #row(row: HtmlElement, place: Place): HtmlNode[] {
    const cells = row.children.filter((cell): cell is HtmlElement => typeof cell !== 'string');
    const [first, second] = cells;
    if (!first || !second || cells.length > 2) return this.#all(row.children, place);
    const sides = holdsPictureAlone(first) && !holdsMedia(second) ? (['left', null] as const) : null;
    const [one, other] =
      sides ?? (holdsPictureAlone(second) && !holdsMedia(first) ? ([null, 'right'] as const) : [null, null]);
    const [before, after] = [
      this.#one(first, { ...place, side: one ?? place.side }),
      this.#one(second, { ...place, side: other ?? place.side }),
    ];
    // What text runs beside stands before it.
    return other === 'right' ? [...after, ...before] : [...before, ...after];
  }

  /** A picture behind what stands in an element, where the page says that it is one of its pictures. */
  #background(node: HtmlElement, declared: string | undefined): readonly HtmlNode[] {
    const named = /url\(\s{0,9}["']?([^"')]{1,3000})/i.exec(declared ?? '')?.[1];
    const address = named === undefined ? '' : absolute(named, this.#base);
    if (address === '') return [];
    const picture = this.#pictures.get(address);
    if (!picture) {
      this.#decorates(address);
      return [];
    }
    return this.#put(picture, { ...NO_USE, spot: spotOf(node), alt: attribute(node, 'aria-label') || null });
  }

  #image(img: HtmlElement, sources: readonly HtmlElement[], place: Place): readonly HtmlNode[] {
    const named = namedFiles({ img, sources, link: place.link || null }, this.#base);
    const src = attribute(img, 'src').trim();
    if (/^http:/i.test(src)) this.insecure.push(...spotsAt(img));
    const known = named.flatMap(({ address }) => this.#known(address) ?? [])[0];
    const shown = absolute(src, this.#base);
    if (!known) {
      this.#decorates(shown || named[0]?.address || '');
      return [];
    }
    const isOwnFile = place.link !== '' && this.#known(place.link) === known && isPictureFile(place.link);
    return this.#put(known, {
      spot: spotOf(img),
      alt: img.attributes.find(({ name }) => name === 'alt')?.value ?? null,
      caption: place.caption || firstSaid(known.statements, 'caption'),
      width: widthOf(img) ?? place.width,
      height: pixels(attribute(img, 'height')) || pixels(declaredIn(img).get('height') ?? ''),
      side: sideOf(img) ?? place.side,
      link: isOwnFile ? '' : place.link,
      opensLarger: isOwnFile,
    });
  }

  #known(address: string): PagePicture | undefined {
    if (address.startsWith('data:')) return this.#pictures.get(address);
    return this.#pictures.get(address) ?? this.#pictures.get(nameInAllSizes(address));
  }

  #put(picture: PagePicture, use: Omit<PictureUse, 'file'>): readonly HtmlNode[] {
    const known = this.#fileAt.get(picture);
    const file = known ?? this.files.length;
    // What stands for a picture without scripts is the same once more.
    if (
      this.#last &&
      this.#last.file === file &&
      this.#last.use === this.uses.length - 1 &&
      this.#isTwin(use)
    )
      return [];
    if (known === undefined) {
      this.#fileAt.set(picture, file);
      const { address, preview, statements } = picture;
      this.files.push({ address, preview, statements });
    }
    this.uses.push({ ...use, file });
    this.#last = { file, use: this.uses.length - 1 };
    return [marker('img', [{ name: 'src', value: `${IN_PAGE}${this.uses.length - 1}` }])];
  }

  /** Two elements of one picture that follow each other at once are the same picture. */
  #isTwin({ spot }: Pick<PictureUse, 'spot'>): boolean {
    const before = this.uses.at(-1)?.spot ?? -1;
    return before >= 0 && spot - before <= 3;
  }

  #decorates(address: string): void {
    if (address === '') return;
    const name = address.startsWith('data:')
      ? 'a drawing in the page'
      : (address.split(/[?#]/)[0]?.split('/').at(-1) ?? '');
    if (name !== '') this.decoration.push(name);
  }

  #framed(node: HtmlElement): readonly HtmlNode[] {
    const isFilm = node.name === 'video';
    if (isFilm && ![...elementsIn(node)].some(({ name }) => name === 'track'))
      this.filmsWithoutCaptions.push(spotOf(node));
    const whole = this.#whole(node);
    if (/^http:/i.test(attribute(node, 'src'))) this.insecure.push(...spotsAt(node));
    const reading = readPasted(codeOf([whole]), this.#hosts);
    return this.#taken(reading, spotOf(node));
  }

  /** A player of old: what it played is looked for in all that it says; else what stands in its place for those without it. */
  #player(node: HtmlElement, place: Place): readonly HtmlNode[] {
    const spot = spotOf(node);
    const data = attribute(node, 'data') || attribute(node, 'src');
    const shown = absolute(data, this.#base);
    if (shown !== '' && this.#known(shown))
      return this.#image(
        { ...node, attributes: [...node.attributes, { name: 'src', value: data }] },
        [],
        place,
      );
    const found = this.#played(node);
    if (isDeadPlayer(node)) {
      this.dead.push({ spot, leads: found !== null });
      return found ? this.#mark(found, spot) : [];
    }
    if (found) return this.#mark(found, spot);
    return this.#framed(node);
  }

  /** What a player plays, by a host that is known or as a film of its own, wherever in its code that is said. */
  #played(node: HtmlElement): ReadEmbed | null {
    const code = [
      codeOf([this.#whole(node)]),
      ...[...elementsIn(node)].flatMap((one) =>
        one.attributes.flatMap(({ value }) => {
          const said = /(?:^|[=&?])((?:https?:\/\/|\/)[^&\s"']{4,500})/.exec(decoded(value))?.[1];
          const address = said === undefined ? '' : absolute(said, this.#base);
          return address === '' || /\.(?:swf|class|jar|dcr)(?:[?#]|$)/i.test(address) ? [] : [address];
        }),
      ),
    ];
    const read = code.flatMap((one) => readPasted(one, this.#hosts).embeds);
    return (
      read.find(
        ({ embed }) => embed.host !== null || embed.carrier === 'video' || embed.carrier === 'audio',
      ) ?? null
    );
  }

  #taken({ embeds, refusals }: EmbedReading, spot: number): readonly HtmlNode[] {
    const [first] = embeds;
    if (first) return this.#mark(first, spot);
    this.refused.push({ spot, why: refusals[0] ?? 'It names nothing that could be embedded.' });
    return [];
  }

  #mark({ embed }: ReadEmbed, spot: number): readonly HtmlNode[] {
    this.embeds.push({ spot, embed });
    return [marker('iframe', [{ name: MARKER, value: `${this.embeds.length - 1}` }])];
  }

  /** A quotation with a program behind it that draws what is quoted: it becomes what it shows. */
  #widget(node: HtmlElement, nodes: readonly HtmlNode[], at: number, place: Place) {
    if (!/^(?:blockquote|div)$/.test(node.name) || place.isCode) return null;
    let next = at + 1;
    while (isBlankText(nodes[next])) next += 1;
    const program = nodes[next];
    if (!program || typeof program === 'string' || program.name !== 'script') return null;
    if (attribute(program, 'src') === '') return null;
    const { embeds } = readPasted(codeOf([this.#whole(node), program]), this.#hosts);
    const found = embeds.find(({ embed }) => embed.carrier === 'widget');
    return found ? { nodes: this.#mark(found, spotOf(node)), last: next } : null;
  }

  #link(node: HtmlElement, place: Place): readonly HtmlNode[] {
    const said = attribute(node, 'href').trim();
    const isOnPage = said.startsWith('#') || /^(?:mailto|tel):/i.test(said);
    const address = isOnPage ? '' : absolute(said, this.#base);
    const words = textOf(node).replace(/\s+/g, ' ').trim();
    const attributes = node.attributes.map((one) =>
      one.name === 'href' && address !== '' ? { ...one, value: address } : one,
    );
    if (address !== '' && words !== '') {
      const { pathname } = new URL(address);
      const list = DOCUMENT_FILE.test(pathname) ? this.documents : this.links;
      list.push({ address, words, spot: spotOf(node) });
    }
    return [{ ...node, attributes, children: this.#all(node.children, { ...place, link: address }) }];
  }

  /** Embed code that stands in the text as letters becomes what it means, outside of what is shown as code. */
  #text(text: string, place: Place): readonly HtmlNode[] {
    if (place.isCode || !CODE_AS_TEXT.test(text)) return [text];
    const nodes = treeOfParsed(parseFragment(text).childNodes);
    const elements = nodes.flatMap((node) => [...elementsIn(node)]);
    const means = elements.some(({ name }) => /^(?:iframe|object|embed|video|audio)$/.test(name));
    if (!means) return [text];
    const before = this.embeds.length;
    const read = this.#all(nodes, { ...place, isCode: false });
    if (this.embeds.length === before) return [text];
    this.codeInText.push(-1);
    return read;
  }

  /** The same element with whole addresses. */
  #whole(node: HtmlElement): HtmlElement {
    return {
      ...node,
      attributes: node.attributes.map((one) =>
        /^(?:src|href|data|poster|data-src|cite)$/.test(one.name)
          ? { ...one, value: absolute(one.value, this.#base) || one.value }
          : one,
      ),
      children: node.children.map((child) => (typeof child === 'string' ? child : this.#whole(child))),
    };
  }
}

/** Of an element that was put in by reading there is none. */
const spotsAt = (node: HtmlElement): readonly number[] => (spotOf(node) < 0 ? [] : [spotOf(node)]);

const NO_USE: Omit<PictureUse, 'file' | 'spot'> = {
  alt: null,
  caption: '',
  width: null,
  height: 0,
  side: null,
  link: '',
  opensLarger: false,
};

const isBlankText = (node: HtmlNode | undefined): boolean => typeof node === 'string' && node.trim() === '';

const CODE_AS_TEXT = /<\s{0,3}(?:iframe|object|embed|video|audio)\b[^>]{0,1000}>/i;

const keysOf = ({ address, preview }: PagePicture): readonly string[] =>
  address.startsWith('data:') ? [address] : [address, preview, nameInAllSizes(address)];

const marker = (name: string, attributes: HtmlElement['attributes']): HtmlElement => ({
  name,
  attributes,
  children: [],
});

/** What is in an element, counted once for each: elements about one picture lie in each other many times. */
interface Held {
  readonly pictures: number;
  readonly media: number;
  readonly letters: number;
}
const counted = new WeakMap<HtmlElement, Held>();

function heldIn(node: HtmlElement): Held {
  const known = counted.get(node);
  if (known) return known;
  let [pictures, media, letters] = [0, 0, 0];
  for (const child of node.children) {
    if (typeof child === 'string') letters += child.trim().length;
    else {
      const inner = heldIn(child);
      const isPicture = child.name === 'img';
      pictures += inner.pictures + Number(isPicture);
      media += inner.media + Number(isPicture || /^(?:iframe|video|audio)$/.test(child.name));
      letters += inner.letters;
    }
  }
  const held = { pictures, media, letters };
  counted.set(node, held);
  return held;
}

const holdsMedia = (node: HtmlElement): boolean => heldIn(node).media > 0;

function holdsPictureAlone(node: HtmlElement): boolean {
  const { letters, pictures } = heldIn(node);
  return letters === 0 && pictures === 1;
}

/** Whether an element is made round one picture, so that its side and width are the picture's. */
function holdsOnePicture(node: HtmlElement): boolean {
  if (!/^(?:div|p|span|table|td|a|center|figure|aside|li)$/.test(node.name)) return false;
  const { letters, pictures } = heldIn(node);
  return pictures === 1 && letters <= BESIDE_LETTERS;
}

/** A box with more words than these is text that has a picture in it. */
const BESIDE_LETTERS = 300;

function captionIn(node: HtmlElement): string {
  const caption = [...elementsIn(node)].find(({ name }) => name === 'figcaption');
  return caption ? textOf(caption).replace(/\s+/g, ' ').trim() : '';
}

/** The side of an element, by its style, by the attribute of old, or by a class that says nothing else. */
function sideOf(node: HtmlElement): PictureUse['side'] {
  const declared = declaredIn(node);
  const said = `${declared.get('float') ?? ''} ${/^(?:img|table|figure|iframe|object)$/.test(node.name) ? attribute(node, 'align') : ''}`;
  if (/\bleft\b|inline-start/i.test(said)) return 'left';
  if (/\bright\b|inline-end/i.test(said)) return 'right';
  if (node.name === 'img' && /^auto$/.test(declared.get('margin-left') ?? '')) return 'centre';
  if (SIDES.some((name) => hasClass(node, `${name}left`))) return 'left';
  if (SIDES.some((name) => hasClass(node, `${name}right`))) return 'right';
  return /\bcent(?:er|re)\b/i.test(attribute(node, 'align')) ? 'centre' : null;
}

/** What style sheets of many sites call it. */
const SIDES = ['align', 'float-', 'float', 'img-', 'pull-', 'image-', 'img'];

function widthOf(node: HtmlElement): SaidWidth {
  const said = declaredIn(node).get('width') || attribute(node, 'width').trim();
  const share = /^(\d{1,3}(?:\.\d{1,4})?)\s{0,3}%$/.exec(said)?.[1];
  if (share !== undefined)
    return Number(share) > 0 && Number(share) <= 100 ? { unit: '%', value: Number(share) } : null;
  const value = pixels(said);
  return value > 0 ? { unit: 'px', value } : null;
}

const DEAD_TYPE =
  /shockwave|flash|silverlight|director|realaudio|rn-realmedia|x-java|mediaplayer|x-mplayer2|quicktime/i;
const DEAD_FILE = /\.(?:swf|class|jar|dcr|xap|rm|ram)(?:[?#]|$)/i;

/** Whether no browser of today plays it (WHATWG HTML, 8.9: the list of plug-ins is fixed). */
function isDeadPlayer(node: HtmlElement): boolean {
  if (node.name === 'applet') return true;
  return [...elementsIn(node)].some(
    (one) =>
      DEAD_TYPE.test(attribute(one, 'type')) ||
      attribute(one, 'classid') !== '' ||
      ['data', 'src', 'code', 'value'].some((name) => DEAD_FILE.test(attribute(one, name))),
  );
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text.slice(0, 4000));
  } catch {
    return text.slice(0, 4000);
  }
}
