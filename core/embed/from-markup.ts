import { decodeHTML } from 'entities/decode';
import { oneLine } from '../words/one-line.ts';
import { readWebAddress } from './address.ts';
import {
  type Candidate,
  type Gathered,
  type Mark,
  MOST_THINGS,
  NOTHING_THERE,
  type ReadFrom,
  unlike,
} from './gathered.ts';
import { entryOf, type Hosts, thingAt } from './host.ts';
import {
  type Attribute,
  attributeOf,
  attributeText,
  type Piece,
  readMarkup,
  type Stretch,
  type Tag,
} from './markup.ts';
import { type OpenElement, OpenElements } from './open-elements.ts';
import { percentOfStyle, type SaidSize, sizeOf } from './said-size.ts';
import type { Source } from './unwrap.ts';

/** More tags that name a thing, and more parts that are told apart, are not looked at. */
const MOST_FOUND = 500;
const MOST_MARKS = 5000;

/** What may be embedded in markup in any condition. */
export function fromMarkup(source: Source, hosts: Hosts, isInner = false): Gathered {
  const gathering = new Gathering(source, hosts, isInner);
  for (const piece of readMarkup(source.text)) {
    if (gathering.isFull) break;
    gathering.take(piece);
  }
  return gathering.end();
}

export const PROGRAMS_STAY = 'Programs never come along.';
export const OF_A_PAGE = 'What a whole page says of itself does not come along.';
const MOST_WORDS = 600;
const PLAYED_BY_ALL = /\.(?:mp4|m4v|mp3)(?:[?#]|$)/i;
/** A frame or player by its own name, or by that of an element of a script that stands for one. */
const FRAMES = /^(?:iframe|frame|[a-z0-9]{1,20}-i?frame)$/;
const PLAYERS = /^(?:(?:[a-z0-9]{1,20}-)?(?:video|audio))$/;
/** An element of a script (HTML, valid custom element name): what it is, its address has to say. */
const CUSTOM = /^[a-z][a-z0-9.]{0,40}-[a-z0-9.-]{1,60}$/;
/** Where frames that load late keep their address. */
const LATE = ['data-src', 'data-lazy-src', 'data-original', 'data-url', 'data-embed-src'];
/** What a plug-in was told to show. */
const PLUG_IN_NAMES = new Set(['movie', 'src', 'url', 'filename', 'data', 'href']);
/** What a page says of the player of what it shows (schema.org, Open Graph), from the surest on. */
const PAGE_NAMES = ['embedurl', 'og:video:secure_url', 'og:video:url', 'og:video', 'contenturl'];

/** Walks over the tags of one paste and keeps what may become an embed. */
class Gathering {
  readonly #source: Source;
  readonly #hosts: Hosts;
  /** Whether this is a page within the code of another. */
  readonly #isInner: boolean;
  readonly #candidates: Candidate[] = [];
  readonly #links: Candidate[] = [];
  readonly #marks: Mark[] = [];
  readonly #notes = new Set<string>();
  readonly #open = new OpenElements();
  /** The words of elements that another names as its label, by their id: where they begin. */
  readonly #named = new Map<string, number>();
  #ofPage: { readonly rank: number; readonly candidate: Candidate } | null = null;
  #canonical: Candidate | null = null;
  #player: Tag | null = null;
  /** Where the player's own file stands among the candidates; null before one was named. */
  #played: number | null = null;
  /** The link that is open: its place among the links, or null where it is none of them, and where its words begin. */
  #worded: { readonly at: number | null; readonly address: string; readonly from: number } | null = null;
  /** What links call what they lead to. */
  readonly #called: { readonly address: string; readonly words: string }[] = [];
  /** The program or sheet of styles that is open. */
  #left: Tag | null = null;
  #hasCode = false;

  constructor(source: Source, hosts: Hosts, isInner: boolean) {
    this.#source = source;
    this.#hosts = hosts;
    this.#isInner = isInner;
  }

  take(piece: Piece): void {
    if (piece.kind === 'text') return;
    if (piece.kind === 'end') {
      this.#end(piece);
      return;
    }
    this.#markAttributes(piece);
    this.#open.push(piece, this.#candidates.length);
    this.#element(piece);
  }

  #end(tag: Tag): void {
    const { name } = tag;
    if (this.#left?.name === name) this.#endLeft(this.#left, tag.to);
    if (name === 'a') this.#endLink(tag.from);
    if (PLAYERS.test(name)) this.#player = null;
    for (const { element, caption } of this.#open.pop(tag)) this.#caption(element, caption);
  }

  /** Enough for any honest paste; what comes after is not looked at, so that a hostile one costs little. */
  get isFull(): boolean {
    return this.#candidates.length + this.#links.length > MOST_FOUND || this.#marks.length > MOST_MARKS;
  }

  end(): Gathered {
    if (this.#left) this.#endLeft(this.#left, this.#source.text.length);
    this.#endLink(this.#source.text.length);
    for (const { element, caption } of this.#open.popAll(this.#source.text.length))
      this.#caption(element, caption);
    this.#titles();
    const found = this.#found();
    if (found.length === 0 && this.#notes.size === 0)
      this.#notes.add(this.#hasCode ? ONLY_SCRIPT : NOTHING_THERE);
    return {
      source: this.#source,
      candidates: unlike(found).slice(0, MOST_THINGS),
      marks: this.#marks,
      notes: [...this.#notes],
    };
  }

  /** What stands there; else what is linked; else what the page itself is said to show, or where it stands. */
  #found(): readonly Candidate[] {
    if (this.#candidates.length > 0) return this.#candidates;
    if (this.#links.length > 0) return this.#links;
    const ofPage = this.#ofPage?.candidate ?? this.#canonical;
    return ofPage ? [ofPage] : [];
  }

  #element(tag: Tag): void {
    const { name } = tag;
    this.#widget(tag);
    this.#ofWholePage(tag);
    const id = attributeText(tag, 'id');
    if (id !== '' && this.#named.size < MOST_FOUND) this.#named.set(id, tag.to);
    if (FRAMES.test(name)) this.#add('frame', tag, ['src', ...LATE]);
    else if (PLAYERS.test(name)) this.#openPlayer(tag);
    else if (name === 'source' && this.#player) this.#addSource(this.#player, tag);
    else if (name === 'object') this.#add('object', tag, ['data', ...LATE]);
    else if (name === 'param') this.#param(tag);
    else if (name === 'embed') this.#add('object', tag, ['src', ...LATE]);
    else if (name === 'applet') this.#applet(tag);
    else if (name === 'blockquote') this.#add('quote', tag, ['cite']);
    else if (name === 'a') this.#add('link', tag, ['href']);
    else if (CUSTOM.test(name)) this.#custom(tag);
    else if (name === 'script' || name === 'style') this.#left ??= tag;
    else if (name === 'link' || name === 'base' || (name === 'meta' && attributeOf(tag, 'http-equiv')))
      this.#drop(tag, OF_A_PAGE);
    else if (name === 'img')
      this.#notes.add(
        'There is a picture in this code. Fetch it under Gather, so that its licence and maker come along.',
      );
    else if (name === 'form')
      this.#notes.add('There is a form in this code. Forms are only taken in a frame of their host.');
  }

  /** A plug-in that names no file of its own is told what to show beside it. */
  #param(tag: Tag): void {
    const object = this.#open.nearest('object');
    if (!object || this.#candidates.length > object.candidates) return;
    if (PLUG_IN_NAMES.has(attributeText(tag, 'name').toLowerCase()))
      this.#addFrom('object', object.tag, tag, ['value']);
  }

  /** A program that no browser runs any more: where it stands can still be linked. */
  #applet(tag: Tag): void {
    const before = this.#candidates.length;
    const named = ['codebase', 'archive', 'code', 'object']
      .map((name) => attributeOf(tag, name))
      .find((attribute) => attribute && /^\s*(?:https?:)?\/\//i.test(attribute.value));
    if (named) this.#push('applet', tag, named, named.value.trim());
    if (this.#candidates.length === before)
      this.#drop(tag, 'Programs of this kind are no longer run by browsers.');
  }

  #custom(tag: Tag): void {
    const named = ['src', ...LATE, 'href']
      .map((name) => attributeOf(tag, name))
      .find((attribute) => attribute && /^\s*(?:https?:)?\/\//i.test(attribute.value));
    if (named) this.#push('frame', tag, named, named.value.trim());
  }

  #ofWholePage(tag: Tag): void {
    if (tag.name === 'link' && /\bcanonical\b/i.test(attributeText(tag, 'rel'))) {
      const href = attributeOf(tag, 'href');
      if (href) this.#canonical ??= this.#candidate('address', tag, href, href.value.trim());
      return;
    }
    if (tag.name !== 'meta' && tag.name !== 'link') return;
    const said = (attributeText(tag, 'itemprop') || attributeText(tag, 'property')).toLowerCase();
    const rank = PAGE_NAMES.indexOf(said);
    if (rank < 0 || (this.#ofPage && this.#ofPage.rank <= rank)) return;
    const value = attributeOf(tag, 'content') ?? attributeOf(tag, 'href');
    if (value) this.#ofPage = { rank, candidate: this.#candidate('frame', tag, value, value.value.trim()) };
  }

  #openPlayer(tag: Tag): void {
    this.#player = tag;
    this.#played = null;
    const before = this.#candidates.length;
    if (attributeOf(tag, 'src')) this.#add('player', tag, ['src']);
    if (this.#candidates.length > before) this.#played = before;
  }

  /**
   * One of several files of one film or recording: one of them stands for all, the first that every browser plays, else
   * the first.
   */
  #addSource(player: Tag, tag: Tag): void {
    const before = this.#candidates.length;
    this.#addFrom('player', player, tag, ['src']);
    const made = this.#candidates[before];
    if (!made) return;
    const standing = this.#played === null ? undefined : this.#candidates[this.#played];
    if (this.#played === null || !standing) {
      this.#played = before;
      return;
    }
    this.#candidates.pop();
    const isBetter = PLAYED_BY_ALL.test(made.address) && !PLAYED_BY_ALL.test(standing.address);
    if (isBetter) this.#candidates[this.#played] = made;
    const other = isBetter ? standing : made;
    if (other.addressText) this.#drop(other.addressText, 'Another file of the same. One is taken.');
  }

  /** The words of a link are what it calls the thing; within what cannot be shown, they stand for it. */
  #endLink(at: number): void {
    const worded = this.#worded;
    this.#worded = null;
    if (!worded) return;
    const words = this.#wordsFrom(worded.from, at);
    // An address as its own words says nothing that the address does not say.
    if (words === '' || /^(https?:\/\/|www\.)\S+$/i.test(words)) return;
    const link = worded.at === null ? undefined : this.#links[worded.at];
    if (worded.at !== null && link?.title === '') this.#links[worded.at] = { ...link, title: words };
    if (SAYS_NOTHING.test(words)) return;
    if (this.#called.length < MOST_THINGS) this.#called.push({ address: worded.address, words });
    const object = this.#open.nearest('object');
    const shown = object && this.#candidates[object.candidates];
    if (object && shown?.title === '') this.#candidates[object.candidates] = { ...shown, title: words };
  }

  #wordsFrom(from: number, to: number, most = MOST_WORDS): string {
    const words = this.#source.text.slice(from, Math.min(to, from + most));
    return oneLine(decodeHTML(words.replace(/<[^<>]*>?/g, ' ')), most);
  }

  /** Words under a figure are those of everything in it. */
  #caption(figure: OpenElement, words: Stretch | null): void {
    if (!words) return;
    const caption = this.#wordsFrom(words.from, words.to, 4 * MOST_WORDS);
    if (caption !== '' && figure.candidates < this.#candidates.length)
      this.#keep(words, 'Kept as its caption.');
    for (let at = figure.candidates; at < this.#candidates.length; at += 1) {
      const candidate = this.#candidates[at];
      if (candidate?.caption === '') this.#candidates[at] = { ...candidate, caption };
    }
  }

  /** A title where the element has none: what it names as its label, what a link to the same calls it, its caption. */
  #titles(): void {
    for (const [at, candidate] of this.#candidates.slice(0, MOST_THINGS).entries()) {
      if (candidate.title !== '') continue;
      const title =
        this.#labelOf(candidate) || this.#linkedWords(candidate) || shortCaption(candidate.caption);
      if (title !== '') this.#candidates[at] = { ...candidate, title };
    }
  }

  #labelOf({ tag }: Candidate): string {
    const from = tag
      ? this.#named.get(attributeText(tag, 'aria-labelledby').split(/\s+/)[0] ?? '')
      : undefined;
    if (from === undefined) return '';
    const to = this.#source.text.indexOf('</', from);
    return this.#wordsFrom(from, to < 0 ? from + MOST_WORDS : to);
  }

  #linkedWords(candidate: Candidate): string {
    const same = this.#called.find(({ address }) => isSameThing(address, candidate.address, this.#hosts));
    return same?.words ?? '';
  }

  /** An element that a host's script fills: read by the recipe in the host's entry, whatever the script does. */
  #widget(tag: Tag): void {
    if (tag.name !== 'script' && !attributeOf(tag, 'class')) return;
    const classes = attributeText(tag, 'class').split(/\s+/);
    for (const entry of this.#hosts.entries) {
      const { widget } = entry;
      if (!widget) continue;
      const isItsScript =
        tag.name === 'script' &&
        scriptOf(entry.origin, widget.script) ===
          attributeText(tag, 'src')
            .replace(/^(https?:)?\/\//, '')
            .split(/[?#]/)[0];
      if (!isItsScript && !classes.includes(widget.className)) continue;
      const named = attributeOf(tag, widget.attribute);
      if (named)
        this.#push(
          'widget',
          tag,
          named,
          addressOfName(entry.origin, entry.addresses[0]?.page ?? '/', named.value),
        );
      else if (isItsScript)
        this.#notes.add(
          `This is the script of ${entry.name}, which says by itself not what to show. ${entry.ask}`,
        );
    }
  }

  #add(from: ReadFrom, tag: Tag, names: readonly string[]): void {
    this.#addFrom(from, tag, tag, names);
  }

  /** The first of the attributes that holds an address; empty frames name theirs elsewhere. */
  #addFrom(from: ReadFrom, tag: Tag, carrying: Tag, names: readonly string[]): void {
    const found = names
      .map((name) => attributeOf(carrying, name))
      .find((attribute) => attribute && !/^\s*(about:blank)?\s*$/i.test(attribute.value));
    if (found) this.#push(from, tag, found, found.value.trim());
    else if (from === 'frame' && !this.#pageInCode(tag)) this.#notes.add('This frame names no address.');
  }

  /** A whole page in the code of a frame is never taken over; what it shows of a host may be named in it. */
  #pageInCode(tag: Tag): boolean {
    const page = attributeOf(tag, 'srcdoc');
    if (!page) return false;
    const inner = this.#isInner
      ? null
      : fromMarkup({ text: page.value, places: null }, this.#hosts, true).candidates[0];
    if (inner) {
      const { width, height, heightPercent } = this.#sizeOf(tag);
      this.#candidates.push({
        ...inner,
        addressText: null,
        width: inner.width ?? width,
        height: inner.height ?? height,
        heightPercent: inner.heightPercent ?? heightPercent,
        title: attributeText(tag, 'title') || inner.title,
      });
    } else
      this.#notes.add(
        'This frame carries a whole page in its code instead of an address. Pages from elsewhere are never taken over; ask its host for an address.',
      );
    return true;
  }

  #push(from: ReadFrom, tag: Tag, attribute: Attribute, address: string): void {
    const isReference = from === 'link' || from === 'quote';
    if (isReference && (!address.includes('//') || SAYS_RIGHTS.test(attributeText(tag, 'rel')))) return;
    const candidate = this.#candidate(from, tag, attribute, address);
    if (!isReference) {
      this.#candidates.push(candidate);
      return;
    }
    const read = readWebAddress(address);
    // A link to a known thing is as good as its address; any other is only taken when there is nothing else.
    const isTaken =
      read.kind === 'address' &&
      (from === 'quote' || entryOf(read.url, this.#hosts) !== undefined || this.#links.length === 0);
    if (isTaken) this.#links.push(candidate);
    if (from === 'link')
      this.#worded = { at: isTaken ? this.#links.length - 1 : null, address, from: tag.to };
  }

  #candidate(from: ReadFrom, tag: Tag, attribute: Attribute, address: string): Candidate {
    const { valueAt } = attribute;
    return {
      from,
      address,
      addressText: {
        raw: this.#source.text.slice(valueAt.from, valueAt.to),
        from: valueAt.from,
        to: valueAt.to,
      },
      tag,
      ...this.#sizeOf(tag),
      title: saidTitle(tag),
      caption: '',
      oembed: null,
    };
  }

  /** What the element says of its size, or where it fills a box, what that says. */
  #sizeOf(tag: Tag): SaidSize {
    const own = sizeOf(tag, this.#open.shapes);
    return own.heightPercent !== null || (own.width !== null && own.height !== null)
      ? own
      : this.#open.boxOf(tag, own);
  }

  #markAttributes(tag: Tag): void {
    for (const attribute of tag.attributes) {
      const reason = droppedAttribute(attribute.name);
      if (attribute.name === 'style') this.#takeStyle(attribute);
      else if (reason) this.#drop(attribute, reason);
      else if (isSize(tag, attribute)) this.#keep(attribute, 'Its size is kept as its shape.');
      else if (attribute.name === 'title') this.#keep(attribute, 'Its title is kept.');
    }
  }

  #takeStyle(attribute: Attribute): void {
    this.#drop(
      attribute,
      percentOfStyle(attribute.value) === null
        ? 'How it looks is written anew.'
        : 'Its shape is kept; how it looks is written anew.',
    );
  }

  #endLeft({ name, from, to }: Tag, end: number): void {
    this.#left = null;
    if (name === 'style') {
      this.#open.learn(this.#source.text.slice(to, end));
      this.#drop({ from, to: end }, 'How it looks is written anew.');
      return;
    }
    this.#hasCode = true;
    this.#drop({ from, to: end }, PROGRAMS_STAY);
  }

  #drop({ from, to }: Stretch, why: string): void {
    this.#marks.push({ from, to, as: 'dropped', why });
  }

  #keep({ from, to }: Stretch, why: string): void {
    this.#marks.push({ from, to, as: 'fact', why });
  }
}

/** A link that says whose a thing is or under which terms (HTML, link types) is no thing itself. */
const SAYS_RIGHTS = /\b(?:license|author|me|help|privacy-policy|terms-of-service)\b/i;

/** Words that say what to do and not what a thing is. */
const SAYS_NOTHING =
  /^(?:(?:view|see|open|show|watch|play|listen|download|click|read|more|full|large|the|in|on|at|to|it|this|your|browser|larger|bigger|here|map|video|film|page|link|file|source|embed|share|new|window|tab|screen)\b[\s.,:…]*)+$/i;

function saidTitle(tag: Tag): string {
  return attributeText(tag, 'title') || attributeText(tag, 'aria-label') || attributeText(tag, 'data-title');
}

/** A caption that is no longer than a title may stand for one. */
function shortCaption(caption: string): string {
  return caption.length <= 120 ? caption.replace(/(?<=[^.])\.$/, '') : '';
}

/**
 * Whether two addresses name one thing of a host: by its entry, or by the last part of the path, which players and pages
 * of one host share.
 */
function isSameThing(one: string, other: string, hosts: Hosts): boolean {
  const [a, b] = [readWebAddress(one), readWebAddress(other)];
  if (a.kind === 'fault' || b.kind === 'fault') return false;
  const entry = entryOf(a.url, hosts);
  if (entry)
    return entryOf(b.url, hosts) === entry && thingAt(entry, a.url)?.page === thingAt(entry, b.url)?.page;
  const domain = (url: URL) => url.hostname.split('.').slice(-2).join('.');
  if (domain(a.url) !== domain(b.url)) return false;
  const named = (url: URL) => [
    url.pathname.split('/').filter(Boolean).at(-1) ?? '',
    ...url.searchParams.values(),
  ];
  const names = new Set(named(a.url).filter((name) => name.length >= 4));
  return a.url.href === b.url.href || named(b.url).some((name) => names.has(name));
}

const ONLY_SCRIPT =
  'This is only a program, and no host is known that gives it out. Ask its host for the code with a frame, or for the address of the page that shows the thing.';

function scriptOf(origin: string, path: string): string {
  return `${new URL(origin).host}${path}`;
}

/** An address as it stands, or the page of the thing that a name stands for. */
function addressOfName(origin: string, page: string, value: string): string {
  const text = value.trim();
  return /^[A-Za-z0-9_-]{1,100}$/.test(text) ? origin + page.replace('{id}', text) : text;
}

function droppedAttribute(name: string): string | null {
  if (name.startsWith('on')) return PROGRAMS_STAY;
  if (name === 'srcdoc') return 'Pages from elsewhere are never taken over.';
  if (
    [
      'frameborder',
      'scrolling',
      'marginwidth',
      'marginheight',
      'border',
      'align',
      'bgcolor',
      'seamless',
    ].includes(name)
  )
    return 'How it looks is written anew.';
  if (
    [
      'loading',
      'referrerpolicy',
      'sandbox',
      'importance',
      'fetchpriority',
      'credentialless',
      'csp',
      'name',
      'id',
    ].includes(name)
  )
    return 'This is written anew.';
  return null;
}

function isSize(tag: Tag, { name, value }: Attribute): boolean {
  return (name === 'width' || name === 'height') && tag.name !== 'img' && /^\s*\d/.test(value);
}
