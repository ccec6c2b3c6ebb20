import { attributeOf, attributeText, type Piece, readMarkup, type Tag } from '../embed/markup.ts';
import { oneLine } from '../words/one-line.ts';
import { isDataPicture } from './data-picture.ts';
import { compared, type NamedFile, namedFiles } from './image-source.ts';
import { isNoContent, isOfEveryPage } from './no-content.ts';
import { absolute, isPictureFile, pixels } from './page-address.ts';
import { IMAGE_TYPE, type PagePicture, pictureOfObject, saidByObject } from './page-data.ts';
import { addLicence, caption, type Image, isLate, isTinyData, previewOf, sizeOf } from './page-image.ts';
import { maybeStatement, type Statement, statements } from './statement.ts';

/** Something of schema.org that is described in the page's own elements (HTML, microdata). */
interface Item {
  readonly type: string;
  readonly values: Record<string, unknown>;
}

/** An element whose end has not come yet. */
interface Open {
  readonly tag: Tag;
  /** How many pictures, and how many letters of text, were found before it. */
  readonly images: number;
  readonly letters: number;
  readonly isMark: boolean;
  readonly isInContent: boolean;
  readonly item: Item | null;
  /** Its text, where that is wanted. */
  words: string | null;
  /** Licences that are linked in it, and whose it is not known yet. */
  readonly licences: Statement[];
  /** A caption that came before its picture. */
  caption: string;
  /** How many cells more than rows a table has: none in one of a single column. */
  beside: number;
}

/** More of one kind is of no use to anybody, and would have to be compared with all the rest. */
const IMAGE_LIMIT = 400;
const LICENCE_LIMIT = 20;
const SCRIPT_LIMIT = 50;
const DEPTH_LIMIT = 200;
const CAPTION_LIMIT = 5000;
const ID_LIMIT = 500;
/** A box with more text about its picture is a part of the article, whose licence is that of the text. */
const BESIDE_LETTERS = 600;
/** A table or a box with one picture and no more words than these shows the picture with its caption. */
const CAPTION_LETTERS = 300;

const VOID = new Set(
  'area base br col embed hr img input link meta param source track wbr frame image'.split(' '),
);
/** Within a line: their edges part no words. */
const INLINE = new Set(
  'a abbr b bdi bdo big cite code del dfn em font i img ins kbd mark q s samp small span strong sub sup time tt u var wbr'.split(
    ' ',
  ),
);
/** Elements whose start ends an open one of the same kind (HTML, optional tags), and what that does not reach beyond. */
const ENDED_BY: Readonly<Record<string, readonly [ended: RegExp, within: RegExp]>> = {
  li: [/^li$/, /^(?:ul|ol|menu)$/],
  dt: [/^d[td]$/, /^dl$/],
  dd: [/^d[td]$/, /^dl$/],
  td: [/^t[dh]$/, /^(?:tr|table)$/],
  th: [/^t[dh]$/, /^(?:tr|table)$/],
  tr: [/^tr$/, /^table$/],
  a: [/^a$/, /^(?:table|td|div|section|article)$/],
};
/** Elements that are made about one picture in lists and albums. */
const HOLDS_ONE = new Set(['a', 'li', 'figure', 'div', 'span', 'button']);
/** Between a picture and what stands in its place, or under it. */
const KEEPS_PLACE = new Set(['noscript', 'source', 'br', 'picture', 'a']);
/** The parts of a page that hold several things: a licence that stands in them is none of one picture. */
const WIDE = new Set(
  'html head body main article section ul ol dl form header footer nav aside tbody thead'.split(' '),
);
/** Boxes in which a line under a picture is its caption; no more letters than these. */
const LINES_UNDER = new Set(['td', 'center', 'p', 'div']);
const LINE_LETTERS = 150;
/** What a caption is not looked for beyond. */
const APART = new Set([...WIDE].filter((name) => name !== 'dl'));
const CONTENT = new Set(['main', 'article', 'figure']);
const CAPTION_CLASS =
  /(?:^|[-_])(?:caption|cutline|bildunterschrift|legende?)(?:[-_]?(?:text|body|inner|content))?$/i;
const PICTURE_BOX =
  /^(?:[a-z]{1,12}[-_])?(?:photo|foto|image|img|picture|pic|bild|figure|illustration|illu)(?:[-_]?(?:box|wrap|wrapper|container|block|frame|left|right|center|centre|full|wide))?$/i;
const ADDRESS_VALUES = /^(?:contenturl|url|license|thumbnailurl|thumbnail|acquirelicensepage|image|photo)$/i;
const VALUE_NAMES: Readonly<Record<string, string>> = {
  contenturl: 'contentUrl',
  thumbnailurl: 'thumbnailUrl',
  copyrightnotice: 'copyrightNotice',
  credittext: 'creditText',
  datecreated: 'dateCreated',
};

/** What one walk over a page found. */
export interface Walked {
  readonly title: string;
  readonly base: string;
  readonly images: readonly PagePicture[];
  readonly previews: readonly PagePicture[];
  readonly jsonLd: readonly unknown[];
  /** Licences of the whole page, of which it does not say whether they are its pictures'. */
  readonly licences: readonly Statement[];
  readonly leftOut: number;
}

/**
 * One walk over the tags and texts of a page. No tree is built: what is open is kept in a list of bounded length, so that
 * the time is linear in the length whatever is nested in what.
 */
export class PageWalk {
  readonly #html: string;
  readonly #base: string;
  readonly #openGraph = new Map<string, string>();
  readonly #jsonLd: unknown[] = [];
  readonly #licences: Statement[] = [];
  /** Licences that name the picture they are of (RDFa `about`, `resource`). */
  readonly #licencesOf: { readonly address: string; readonly said: Statement }[] = [];
  readonly #images: Image[] = [];
  readonly #items: PagePicture[] = [];
  readonly #open: Open[] = [];
  /** The sources of each `picture`, and small print straight under a picture. */
  readonly #sources = new Map<Tag, Tag[]>();
  readonly #smallUnder = new WeakSet<Tag>();
  readonly #linesUnder = new WeakSet<Tag>();
  readonly #ids = new Map<string, number>();
  #previewLink = '';
  #title: string | null = null;
  #letters = 0;
  /** The picture that stands straight before, for what stands in its place without scripts, or under it as its caption. */
  #before: { readonly image: number; isBroken: boolean } | null = null;
  #leftOut = 0;

  constructor(html: string, address: string) {
    this.#html = html;
    this.#base = baseOf(html, address);
  }

  walk(): Walked {
    let script: Tag | null = null;
    for (const piece of readMarkup(this.#html, 'text')) {
      // What a script holds is no text: it stands between its tag and the next piece.
      if (script) this.#addScript(script.to, piece.from);
      script = piece.kind === 'start' && isJsonLd(piece) ? piece : null;
      this.#take(piece);
    }
    if (script) this.#addScript(script.to, this.#html.length);
    this.#closeFrom(0);
    const images = this.#images.filter(({ files }) => files.length > 0);
    return {
      title: oneLine(this.#title ?? ''),
      base: this.#base,
      images: [...images.map((image) => this.#picture(image)), ...this.#items],
      previews: this.#previews(),
      jsonLd: this.#jsonLd,
      licences: this.#licences,
      leftOut: this.#leftOut,
    };
  }

  #take(piece: Piece): void {
    if (piece.kind === 'text') this.#addText(piece.text);
    else if (piece.kind === 'start') this.#start(piece);
    else {
      if (!INLINE.has(piece.name)) this.#part();
      this.#close(piece.name);
    }
  }

  #start(tag: Tag): void {
    const { name } = tag;
    if (!INLINE.has(name)) this.#part();
    this.#endImplied(name);
    const isCaption = this.#isSmallUnder(tag);
    const isTwin = name === 'img' && this.#nearest('noscript') !== undefined;
    if (!isTwin && !KEEPS_PLACE.has(name) && !isCaption) this.#before = null;
    if (name === 'br' && this.#before) this.#breakUnder(this.#before);
    const id = attributeText(tag, 'id');
    if (id !== '' && this.#ids.size < ID_LIMIT) this.#ids.set(id, tag.to);
    if (isCaption) this.#smallUnder.add(tag);
    if (!VOID.has(name)) this.#push(tag, isCaption);
    this.#countCell(name);
    this.#element(tag);
    this.#addValue(tag);
  }

  #countCell(name: string): void {
    const by = name === 'td' || name === 'th' ? 1 : name === 'tr' ? -1 : 0;
    const table = by === 0 ? undefined : this.#nearest('table');
    if (table) table.beside += by;
  }

  #push(tag: Tag, isCaption: boolean): void {
    if (this.#open.length >= DEPTH_LIMIT) return;
    const parent = this.#open.at(-1);
    const isInContent = (parent?.isInContent ?? false) || CONTENT.has(tag.name);
    const isItem = attributeOf(tag, 'itemscope') !== undefined;
    const wantsWords =
      isCaption ||
      tag.name === 'figcaption' ||
      tag.name === 'object' ||
      tag.name === 'table' ||
      (tag.name === 'title' && this.#nearest('svg') !== undefined) ||
      (tag.name === 'title' && this.#title === null) ||
      attributeOf(tag, 'itemprop') !== undefined ||
      hasClass(tag, CAPTION_CLASS) ||
      hasClass(tag, PICTURE_BOX);
    this.#open.push({
      tag,
      images: this.#images.length,
      letters: this.#letters,
      isMark: (parent?.isMark ?? false) || isOfEveryPage(tag, parent?.isInContent ?? false),
      isInContent,
      item: isItem ? { type: attributeText(tag, 'itemtype'), values: {} } : null,
      words: wantsWords ? '' : null,
      licences: [],
      caption: '',
      beside: 0,
    });
  }

  /** A line under a picture: what follows in its box, if it is little, is said of it. */
  #breakUnder(before: { isBroken: boolean }): void {
    before.isBroken = true;
    const box = this.#open.findLast(({ tag }) => LINES_UNDER.has(tag.name));
    if (box && box.words === null && box.images === this.#images.length - 1) {
      box.words = '';
      this.#linesUnder.add(box.tag);
    }
  }

  /** A line in small print straight under a picture, as pages without figures write its caption. */
  #isSmallUnder({ name }: Tag): boolean {
    return (this.#before?.isBroken ?? false) && /^(?:small|i|em|font|cite|span)$/.test(name);
  }

  #element(tag: Tag): void {
    switch (tag.name) {
      case 'meta':
        this.#addMeta(tag);
        break;
      case 'a':
      case 'link':
        this.#addLink(tag);
        break;
      case 'img':
        this.#addImage(tag);
        break;
      case 'source':
        if (this.#nearest('picture')) this.#addSource(tag);
        break;
      case 'image':
        if (this.#nearest('svg')) this.#addDrawn(tag);
        break;
      case 'video':
        this.#addFile(tag, attributeText(tag, 'poster'));
        break;
      case 'object':
        if (/^image\/(?!svg)/i.test(attributeText(tag, 'type')) || this.#isFile(attributeText(tag, 'data')))
          this.#addFile(tag, attributeText(tag, 'data'));
        break;
      default:
        if (tag.name.includes('-')) this.#addCustom(tag);
        else if (attributeText(tag, 'role').toLowerCase() === 'img') this.#addBackground(tag);
    }
  }

  #isFile(address: string): boolean {
    const whole = absolute(address, this.#base);
    return whole !== '' && isPictureFile(whole);
  }

  #addSource(tag: Tag): void {
    const picture = this.#nearest('picture');
    if (!picture) return;
    const sources = this.#sources.get(picture.tag) ?? [];
    if (sources.length < SCRIPT_LIMIT) sources.push(tag);
    this.#sources.set(picture.tag, sources);
  }

  #addImage(tag: Tag): void {
    const picture = this.#nearest('picture');
    const link = this.#nearest('a');
    const files = namedFiles(
      {
        img: tag,
        sources: (picture && this.#sources.get(picture.tag)) ?? [],
        link: link ? attributeText(link.tag, 'href') : null,
        around: this.#open.slice(-3).flatMap(({ tag: open }) => (HOLDS_ONE.has(open.name) ? [open] : [])),
      },
      this.#base,
    );
    this.#addFound(tag, files, link);
  }

  /** An element of a script (HTML, custom elements) that stands for an image. */
  #addCustom(tag: Tag): void {
    const files = namedFiles({ img: tag, sources: [], link: null }, this.#base);
    const [best] = files;
    if (!best) return;
    const isImage = /(?:^|-)(?:img|image|picture|photo|figure)(?:-|$)/.test(tag.name);
    const isFile = best.address.startsWith('data:') || isPictureFile(best.address);
    if (isImage || isFile) this.#addFound(tag, files, this.#nearest('a'));
    else if (attributeOf(tag, 'poster')) this.#addFile(tag, attributeText(tag, 'poster'));
  }

  #addDrawn(tag: Tag): void {
    this.#addFile(tag, attributeText(tag, 'href') || attributeText(tag, 'xlink:href'));
  }

  #addBackground(tag: Tag): void {
    const style = attributeText(tag, 'style').slice(0, 4000);
    const named =
      /background(?:-image)?\s{0,9}:[^;]{0,300}?url\(\s{0,9}["']?([^"')]{1,3000})/i.exec(style)?.[1] ??
      (attributeText(tag, 'data-bg') ||
        attributeText(tag, 'data-background') ||
        attributeText(tag, 'data-src'));
    this.#addFile(tag, named.replace(/^url\(["']?|["']?\)$/g, ''));
  }

  #addFile(tag: Tag, address: string): void {
    const text = address.trim();
    const whole = isDataPicture(text) ? text : absolute(text, this.#base);
    if (whole) this.#addFound(tag, [{ address: whole, width: 0, density: 0, rank: 1 }], undefined);
  }

  #addFound(tag: Tag, named: readonly NamedFile[], link: Open | undefined): void {
    const files = named.filter((file) => !isTinyData(file.address, tag));
    const alt = this.#altOf(tag);
    const parent = this.#open.at(-1);
    const seen = {
      tag,
      address: files[0]?.address ?? '',
      alt,
      isMark: parent?.isMark ?? false,
      isInFigure: this.#nearest('figure') !== undefined,
      isSign: link !== undefined && (isLicenceLink(link.tag) || this.#isFront(link.tag)),
    };
    const twin = this.#nearest('noscript') ? this.#before : null;
    if (files.length === 0 && !isLate(tag)) return;
    if (files.length > 0 && isNoContent(seen)) return;
    const known = twin && this.#images[twin.image];
    if (known) {
      known.files.push(
        ...files.filter(({ address }) => !known.files.some((file) => file.address === address)),
      );
      known.files.sort((a, b) => compared(a, b, 0));
      if (known.alt === '') known.alt = alt;
      return;
    }
    if (this.#images.length >= IMAGE_LIMIT) {
      this.#leftOut += 1;
      return;
    }
    this.#images.push({
      files: [...files],
      declared: [pixels(attributeText(tag, 'width')), pixels(attributeText(tag, 'height'))],
      shown: absolute(attributeText(tag, 'src'), this.#base),
      alt,
      caption: '',
      licences: [],
      said: [],
    });
    this.#before = { image: this.#images.length - 1, isBroken: false };
  }

  /** A link to the site's own front about a mark. */
  #isFront(link: Tag): boolean {
    const href = absolute(attributeText(link, 'href'), this.#base);
    return href !== '' && new URL(href).pathname === '/' && new URL(href).host === new URL(this.#base).host;
  }

  #altOf(tag: Tag): string {
    // An empty one says that there is nothing to say.
    if (attributeOf(tag, 'alt')) return attributeText(tag, 'alt');
    const said =
      attributeText(tag, 'aria-label') ||
      this.#wordsAt(attributeText(tag, 'aria-labelledby')) ||
      attributeText(tag, 'data-alt') ||
      attributeText(tag, 'title');
    return (
      said || (tag.name === 'image' ? attributeText(this.#nearest('svg')?.tag ?? tag, 'aria-label') : '')
    );
  }

  /** The words of the elements that are named by their ids, where these stand before. */
  #wordsAt(ids: string): string {
    return ids
      .split(/\s+/)
      .slice(0, 5)
      .flatMap((id) => {
        const from = this.#ids.get(id);
        if (id === '' || from === undefined) return [];
        const end = this.#html.indexOf('</', from);
        return this.#html
          .slice(from, end < 0 ? from : Math.min(end, from + 1000))
          .replace(/<[^<>]{0,200}>/g, '');
      })
      .join(' ')
      .trim();
  }

  #addText(text: string): void {
    if (text.trim() !== '') {
      this.#before = null;
      this.#letters += text.length;
    }
    for (const open of this.#open)
      if (open.words !== null && open.words.length < CAPTION_LIMIT)
        open.words += text.slice(0, CAPTION_LIMIT);
  }

  /** An edge of a block: what stands on both sides of it are two words. */
  #part(): void {
    for (const open of this.#open)
      if (open.words && open.words.length < CAPTION_LIMIT && !open.words.endsWith(' ')) open.words += ' ';
  }

  #nearest(name: string): Open | undefined {
    return this.#open.findLast(({ tag }) => tag.name === name);
  }

  #endImplied(name: string): void {
    const ended = ENDED_BY[name];
    if (!ended) return;
    const [which, within] = ended;
    for (let at = this.#open.length - 1; at >= 0; at -= 1) {
      const open = this.#open[at]?.tag.name ?? '';
      if (which.test(open)) {
        this.#closeFrom(at);
        return;
      }
      if (within.test(open)) return;
    }
  }

  /** Closes the innermost element of that name with all that is open in it; an end without a start closes nothing. */
  #close(name: string): void {
    const at = this.#open.findLastIndex(({ tag }) => tag.name === name);
    if (at >= 0) this.#closeFrom(at);
  }

  #closeFrom(from: number): void {
    while (this.#open.length > from) {
      const open = this.#open.pop();
      if (open) this.#closed(open);
    }
  }

  #closed(open: Open): void {
    const { tag } = open;
    if (tag.name === 'title' && open.words !== null) this.#closeTitle(open);
    if (tag.name === 'object' && open.words !== null) this.#nameImages(open, open.words);
    this.#closeValue(open);
    this.#closeItem(open);
    this.#closeCaption(open);
    this.#closeLicences(open);
  }

  #closeTitle({ words }: Open): void {
    const svg = this.#nearest('svg');
    if (svg) svg.caption = words?.trim() ?? '';
    else this.#title ??= words;
  }

  /** Words that stand in for what cannot be shown are its alternative text. */
  #nameImages({ images }: Open, words: string): void {
    for (const image of this.#images.slice(images)) if (image.alt === '') image.alt = words.trim();
  }

  #closeCaption(open: Open): void {
    const { tag } = open;
    const words = open.words?.replace(/\s+/gu, ' ').trim() ?? '';
    const inside = this.#images.slice(open.images);
    if (tag.name === 'svg' && open.caption !== '') this.#nameImages(open, open.caption);
    else if (open.caption !== '' && inside.length > 0) caption(inside, open.caption);
    if (words === '') return;
    if (tag.name === 'figcaption') {
      this.#captionOf(this.#nearest('figure'), words);
      return;
    }
    // What is set apart within a caption is a part of it.
    if (this.#nearest('figcaption')) return;
    if (hasClass(tag, CAPTION_CLASS) || this.#smallUnder.has(tag)) {
      if (inside.length > 0) caption(inside, words);
      else this.#captionBeside(words);
    } else if (inside.length === 1 && words.length <= this.#captionRoom(open)) caption(inside, words);
  }

  /** How many letters in a box with one picture are its caption; none in a box that is not made for one. */
  #captionRoom({ tag, beside }: Open): number {
    if (hasClass(tag, PICTURE_BOX) || (tag.name === 'table' && beside <= 0)) return CAPTION_LETTERS;
    return this.#linesUnder.has(tag) ? LINE_LETTERS : 0;
  }

  /** All pictures of a figure, those before the caption and, when the figure ends, those behind it. */
  #captionOf(figure: Open | undefined, words: string): void {
    if (!figure) {
      this.#captionBeside(words);
      return;
    }
    figure.caption ||= words;
    caption(this.#images.slice(figure.images), words);
  }

  /** The pictures of the closest box about a caption that has some; a caption may come before its picture. */
  #captionBeside(words: string): void {
    for (const box of this.#open.slice(-5).reverse()) {
      if (APART.has(box.tag.name)) break;
      const inside = this.#images.slice(box.images);
      if (inside.length > 0) {
        caption(inside, words);
        return;
      }
    }
    const parent = this.#open.at(-1);
    if (parent && !WIDE.has(parent.tag.name)) parent.caption ||= words;
  }

  #addLink(tag: Tag): void {
    const href = attributeText(tag, 'href');
    if (tag.name === 'link' && /\bimage_src\b/i.test(attributeText(tag, 'rel')))
      this.#previewLink ||= absolute(href, this.#base);
    if (!isLicenceLink(tag)) return;
    const said = maybeStatement('rdfa', 'licence', absolute(href, this.#base));
    if (!said) return;
    const about = this.#aboutOf(tag);
    const holder = this.#open.at(tag.name === 'a' ? -2 : -1);
    if (about) {
      if (this.#licencesOf.length < LICENCE_LIMIT) this.#licencesOf.push({ address: about, said });
    } else if (!holder || (holder.isMark && !this.#nearest('figure'))) this.#ofPage(said);
    else if (holder.licences.length < LICENCE_LIMIT) holder.licences.push(said);
  }

  /** The picture that a licence link is about (RDFa Lite 1.1, `resource`; RDFa, `about`), where it names a file. */
  #aboutOf(tag: Tag): string {
    for (const { attributes } of [
      tag,
      ...this.#open
        .slice(-8)
        .reverse()
        .map((open) => open.tag),
    ]) {
      const said = attributes.find(({ name }) => name === 'about' || name === 'resource')?.value ?? '';
      const address = said === '' || said.startsWith('#') ? '' : absolute(said, this.#base);
      if (address && isPictureFile(address)) return address;
    }
    return '';
  }

  #ofPage({ value }: Statement): void {
    const said = maybeStatement('link', 'page-licence', value);
    if (
      said &&
      this.#licences.length < LICENCE_LIMIT &&
      !this.#licences.some((one) => one.value === said.value)
    )
      this.#licences.push(said);
  }

  /**
   * A licence belongs to the one picture that it stands beside, in the smallest box that holds both. Where a box holds
   * several, or more than a picture and its words, it is the page's, and nobody but a person can say of what.
   */
  #closeLicences({ tag, licences, images, letters }: Open): void {
    if (licences.length === 0) return;
    const inside = this.#images.slice(images);
    const parent = this.#open.at(-1);
    const isFigure = tag.name === 'figure';
    const isBeside = !WIDE.has(tag.name) && (isFigure || this.#letters - letters <= BESIDE_LETTERS);
    const [only, ...others] = inside;
    for (const said of licences) {
      if (only && others.length === 0 && isBeside) addLicence(only, said);
      else if (only || !isBeside || !parent || isFigure) this.#ofPage(said);
      else if (parent.licences.length < LICENCE_LIMIT) parent.licences.push(said);
    }
  }

  #addMeta(tag: Tag): void {
    const property = attributeText(tag, 'property') || attributeText(tag, 'name');
    const content = attributeText(tag, 'content');
    if (OPEN_GRAPH.test(property) && content && !this.#openGraph.has(property.toLowerCase()))
      this.#openGraph.set(property.toLowerCase(), content);
  }

  /** The value of a property that stands in an attribute (HTML, microdata, 5.2.4); those in text come at its end. */
  #addValue(tag: Tag): void {
    const name = attributeText(tag, 'itemprop');
    if (name === '' || attributeOf(tag, 'itemscope')) return;
    const value =
      attributeOf(tag, 'content')?.value ??
      attributeOf(tag, 'datetime')?.value ??
      (ADDRESS_VALUES.test(name)
        ? (attributeOf(tag, 'href') ?? attributeOf(tag, 'src') ?? attributeOf(tag, 'data'))?.value
        : undefined);
    if (value !== undefined) this.#setValue(tag, name, value);
  }

  #setValue(tag: Tag, names: string, value: unknown): void {
    const item = this.#open.findLast((open) => open.tag !== tag && open.item)?.item;
    for (const name of names.toLowerCase().split(/\s+/).slice(0, 5)) {
      if (item) {
        const key = VALUE_NAMES[name] ?? name;
        if (!Object.hasOwn(item.values, key)) item.values[key] = value;
        if (!IMAGE_TYPE.test(item.type) && name === 'image' && typeof value === 'string')
          this.#addItemImage(tag, value);
      }
    }
  }

  /** The picture of a thing that is named and not shown. */
  #addItemImage(tag: Tag, value: string): void {
    const address = tag.name === 'img' ? '' : absolute(value, this.#base);
    if (address && this.#items.length < IMAGE_LIMIT)
      this.#items.push({ address, preview: address, width: 0, height: 0, statements: [] });
  }

  #closeValue({ tag, words, item }: Open): void {
    const name = attributeText(tag, 'itemprop');
    if (name === '') return;
    if (item) this.#setValue(tag, name, item.values);
    else if (words && words.trim() !== '' && !(ADDRESS_VALUES.test(name) && attributeOf(tag, 'href')))
      this.#setValue(tag, name, words.replace(/\s+/gu, ' ').trim());
  }

  /** A described picture is the one that stands in its element, in the file that the description names. */
  #closeItem({ item, images }: Open): void {
    if (!item || !IMAGE_TYPE.test(item.type)) return;
    const [only, ...others] = this.#images.slice(images);
    const described = pictureOfObject(item.values, this.#base);
    if (!only || others.length > 0) {
      if (described && this.#items.length < IMAGE_LIMIT) this.#items.push(described);
      return;
    }
    only.said = [...only.said, ...saidByObject(item.values, this.#base)];
    if (described && described.address !== only.files[0]?.address)
      only.files.unshift({ address: described.address, width: described.width, density: 0, rank: 4 });
  }

  #addScript(from: number, to: number): void {
    if (this.#jsonLd.length >= SCRIPT_LIMIT) return;
    const data = maybeJson(this.#html.slice(from, to));
    if (data !== undefined) this.#jsonLd.push(data);
  }

  #picture(image: Image): PagePicture {
    const [file] = image.files;
    const address = file?.address ?? '';
    const [width, height] = file ? sizeOf(file, image.declared) : [0, 0];
    const licences = this.#licencesOf.flatMap((one) =>
      image.files.some((named) => named.address === one.address) ? one.said : [],
    );
    return {
      address,
      preview: previewOf(image),
      width,
      height,
      statements: statements(
        maybeStatement('page', 'alt', image.alt),
        maybeStatement('caption', 'caption', image.caption),
        ...image.said,
        ...image.licences,
        ...licences,
      ),
    };
  }

  #previews(): readonly PagePicture[] {
    const said = this.#openGraph;
    const named = said.get('og:image:secure_url') ?? said.get('og:image:url') ?? said.get('og:image') ?? '';
    const address = absolute(named, this.#base) || this.#previewLink;
    if (!address) return [];
    const size = [
      pixels(said.get('og:image:width') ?? ''),
      pixels(said.get('og:image:height') ?? ''),
    ] as const;
    const [width, height] = size[0] > 0 && size[1] > 0 ? size : ([0, 0] as const);
    return [
      {
        address,
        preview: address,
        width,
        height,
        statements: statements(
          maybeStatement('open-graph', 'title', said.get('og:title')),
          maybeStatement('open-graph', 'alt', said.get('og:image:alt')),
          maybeStatement('open-graph', 'source', said.get('og:site_name')),
        ),
      },
    ];
  }
}

const OPEN_GRAPH = /^og:(title|site_name|image(:(url|secure_url|width|height|alt))?)$/i;

/** The address that others are made whole by: the first `base` with one (HTML, "document base URL"). */
function baseOf(html: string, address: string): string {
  if (!/<base\s/i.test(html)) return address;
  for (const piece of readMarkup(html)) {
    if (piece.kind !== 'start' || piece.name !== 'base' || !attributeOf(piece, 'href')) continue;
    return absolute(attributeText(piece, 'href'), address) || address;
  }
  return address;
}

function hasClass(tag: Tag, which: RegExp): boolean {
  const classes = attributeText(tag, 'class').slice(0, 1000);
  return classes !== '' && classes.split(/\s+/).some((one) => which.test(one));
}

function isJsonLd(tag: Tag): boolean {
  return (
    tag.name === 'script' && attributeText(tag, 'type').toLowerCase().split(';')[0] === 'application/ld+json'
  );
}

const LICENCE_TOKENS = new Set(['license', 'licence', 'cc:license', 'dct:license', 'dcterms:license']);

function isLicenceLink(tag: Tag): boolean {
  const said = `${attributeText(tag, 'rel')} ${attributeText(tag, 'property')}`.slice(0, 1000).toLowerCase();
  return said.split(/\s+/).some((token) => LICENCE_TOKENS.has(token));
}

function maybeJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}
