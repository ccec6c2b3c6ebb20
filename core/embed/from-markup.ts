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
import { entryOf, type Hosts } from './host.ts';
import {
  type Attribute,
  attributeOf,
  attributeText,
  type Piece,
  readMarkup,
  type Stretch,
  type Tag,
} from './markup.ts';
import type { Source } from './unwrap.ts';

/** More tags that name a thing, and more parts that are told apart, are not looked at. */
const MOST_FOUND = 500;
const MOST_MARKS = 5000;

/** What may be embedded in markup in any condition. */
export function fromMarkup(source: Source, hosts: Hosts): Gathered {
  const gathering = new Gathering(source, hosts);
  for (const piece of readMarkup(source.text)) {
    if (gathering.isFull) break;
    gathering.take(piece);
  }
  return gathering.end();
}

const FRAMES = new Set(['iframe', 'frame']);
const PLAYERS = new Set(['video', 'audio']);
/** Where frames that load late keep their address. */
const LATE = ['data-src', 'data-lazy-src', 'data-original'];

/** Walks over the tags of one paste and keeps what may become an embed. */
class Gathering {
  readonly #source: Source;
  readonly #hosts: Hosts;
  readonly #candidates: Candidate[] = [];
  readonly #links: Candidate[] = [];
  readonly #marks: Mark[] = [];
  readonly #notes = new Set<string>();
  #heightPercent: number | null = null;
  #player: Tag | null = null;
  #script: Tag | null = null;
  #hasCode = false;

  constructor(source: Source, hosts: Hosts) {
    this.#source = source;
    this.#hosts = hosts;
  }

  take(piece: Piece): void {
    if (piece.kind === 'text') return;
    if (piece.kind === 'end') {
      if (piece.name === 'script') this.#endScript(piece);
      if (PLAYERS.has(piece.name)) this.#player = null;
      return;
    }
    this.#markAttributes(piece);
    this.#element(piece);
  }

  /** Enough for any honest paste; what comes after is not looked at, so that a hostile one costs little. */
  get isFull(): boolean {
    return this.#candidates.length + this.#links.length > MOST_FOUND || this.#marks.length > MOST_MARKS;
  }

  end(): Gathered {
    if (this.#script) this.#dropScript(this.#script.from, this.#source.text.length);
    const found = this.#candidates.length > 0 ? this.#candidates : this.#links;
    if (found.length === 0 && this.#notes.size === 0)
      this.#notes.add(this.#hasCode ? ONLY_SCRIPT : NOTHING_THERE);
    return {
      source: this.#source,
      candidates: unlike(found).slice(0, MOST_THINGS),
      marks: this.#marks,
      notes: [...this.#notes],
    };
  }

  #element(tag: Tag): void {
    const { name } = tag;
    this.#widget(tag);
    if (FRAMES.has(name)) this.#add('frame', tag, ['src', ...LATE]);
    else if (PLAYERS.has(name)) this.#openPlayer(tag);
    else if (name === 'source' && this.#player) this.#addFrom('player', this.#player, tag, ['src']);
    else if (name === 'object') this.#add('object', tag, ['data']);
    else if (name === 'embed') this.#add('object', tag, ['src']);
    else if (name === 'blockquote') this.#add('quote', tag, ['cite']);
    else if (name === 'a') this.#add('link', tag, ['href']);
    else if (name === 'script') this.#script = tag;
    else if (name === 'img')
      this.#notes.add(
        'There is a picture in this code. Fetch it under Gather, so that its licence and maker come along.',
      );
    else if (name === 'form')
      this.#notes.add('There is a form in this code. Forms are only taken in a frame of their host.');
  }

  #openPlayer(tag: Tag): void {
    this.#player = tag;
    this.#add('player', tag, ['src']);
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
    else if (from === 'frame')
      this.#notes.add(
        attributeOf(tag, 'srcdoc')
          ? 'This frame carries a whole page in its code instead of an address. Pages from elsewhere are never taken over; ask its host for an address.'
          : 'This frame names no address.',
      );
  }

  #push(from: ReadFrom, tag: Tag, attribute: Attribute, address: string): void {
    const isReference = from === 'link' || from === 'quote';
    if (isReference && !address.includes('//')) return;
    const stretch = attribute.valueAt;
    const candidate: Candidate = {
      from,
      address,
      addressText: { raw: this.#source.text.slice(stretch.from, stretch.to), ...stretch },
      tag,
      width: lengthOf(tag, 'width'),
      height: lengthOf(tag, 'height'),
      heightPercent: this.#heightPercent,
      title: attributeText(tag, 'title') || attributeText(tag, 'aria-label'),
      oembed: null,
    };
    if (isReference) {
      const read = readWebAddress(address);
      // A link to a known thing is as good as its address; any other is only taken when there is nothing else.
      if (
        read.kind === 'address' &&
        (from === 'quote' || entryOf(read.url, this.#hosts) || this.#links.length === 0)
      )
        this.#links.push(candidate);
      return;
    }
    this.#candidates.push(candidate);
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
    const percent =
      /padding(?:-bottom|-top)?\s{0,9}:\s{0,9}(?:0\s{1,9}0\s{1,9})?(\d{1,3}(?:\.\d{1,6})?)%/i.exec(
        attribute.value,
      );
    if (percent) this.#heightPercent = Number(percent[1]);
    this.#drop(
      attribute,
      percent ? 'Its shape is kept; how it looks is written anew.' : 'How it looks is written anew.',
    );
  }

  #endScript(tag: Tag): void {
    if (!this.#script) return;
    this.#dropScript(this.#script.from, tag.to);
    this.#script = null;
  }

  #dropScript(from: number, to: number): void {
    this.#hasCode = true;
    this.#drop({ from, to }, 'Programs never come along.');
  }

  #drop({ from, to }: Stretch, why: string): void {
    this.#marks.push({ from, to, as: 'dropped', why });
  }

  #keep({ from, to }: Stretch, why: string): void {
    this.#marks.push({ from, to, as: 'fact', why });
  }
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
  if (name.startsWith('on')) return 'Programs never come along.';
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

/** A length in px from an attribute (HTML, "rules for parsing dimension values"); null for percentages and nonsense. */
function lengthOf(tag: Tag, name: string): number | null {
  const found = /^(\d{1,5})(\.\d{1,9})?(px)?$/.exec(attributeText(tag, name));
  const length = found ? Math.round(Number(found[1])) : 0;
  return length > 0 ? length : null;
}
