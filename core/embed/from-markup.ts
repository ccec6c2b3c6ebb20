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

const MOST_WORDS = 600;
const NAME_TAKEN_ALONG = /\s[a-z-]{2,20}=$/i;
const PLAYED_BY_ALL = /\.(?:mp4|m4v|mp3)(?:[?#]|$)/i;
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
  /** Where the player's own file stands among the candidates; null before one was named. */
  #played: number | null = null;
  /** The link that is open: its place among the links, and where its words begin. */
  #worded: { readonly at: number; readonly from: number } | null = null;
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
      if (piece.name === 'a') this.#endLink(piece.from);
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
    this.#endLink(this.#source.text.length);
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
    else if (name === 'source' && this.#player) this.#addSource(this.#player, tag);
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

  /** The words of a link are what it calls the thing. */
  #endLink(at: number): void {
    const link = this.#worded && this.#links[this.#worded.at];
    if (this.#worded && link && link.title === '') {
      const words = this.#source.text.slice(this.#worded.from, Math.min(at, this.#worded.from + MOST_WORDS));
      const title = oneLine(decodeHTML(words.replace(/<[^<>]*>?/g, ' ')));
      // An address as its own words says nothing that the address does not say.
      if (!/^(https?:\/\/|www\.)\S+$/i.test(title)) this.#links[this.#worded.at] = { ...link, title };
    }
    this.#worded = null;
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
    const whole = attribute.valueAt;
    // A quote that was never closed runs on to that of the next attribute, whose name it takes along.
    const unclosed = NAME_TAKEN_ALONG.exec(
      this.#source.text.slice(Math.max(whole.from, whole.to - 40), whole.to),
    );
    const taken = unclosed?.[0].length ?? 0;
    const stretch = { from: whole.from, to: whole.to - taken };
    const candidate: Candidate = {
      from,
      address: taken > 0 ? address.slice(0, -taken).trimEnd() : address,
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
      ) {
        this.#links.push(candidate);
        if (from === 'link') this.#worded = { at: this.#links.length - 1, from: tag.to };
      }
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
    const ratio =
      /aspect-ratio\s{0,9}:\s{0,9}(?:auto\s{1,9})?(\d{1,5}(?:\.\d{1,6})?)(?:\s{0,9}\/\s{0,9}(\d{1,5}(?:\.\d{1,6})?))?/i.exec(
        attribute.value,
      );
    if (percent) this.#heightPercent = Number(percent[1]);
    else if (ratio && Number(ratio[1]) > 0)
      this.#heightPercent = (100 * Number(ratio[2] ?? 1)) / Number(ratio[1]);
    this.#drop(
      attribute,
      percent || ratio ? 'Its shape is kept; how it looks is written anew.' : 'How it looks is written anew.',
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

/**
 * A length in px: from the attribute (HTML, "rules for parsing dimension values"), from one that a script would read, or
 * from the style; null for percentages and nonsense.
 */
function lengthOf(tag: Tag, name: 'width' | 'height'): number | null {
  const styled = new RegExp(`(?:^|;)\\s{0,9}${name}\\s{0,9}:\\s{0,9}(\\d{1,5}(?:\\.\\d{1,9})?px)`, 'i');
  const said = [
    attributeText(tag, name),
    attributeText(tag, `data-${name}`),
    styled.exec(attributeText(tag, 'style').slice(0, 2000))?.[1] ?? '',
  ];
  for (const text of said) {
    const found = /^(\d{1,5})(\.\d{1,9})?(px)?$/.exec(text);
    const length = found ? Math.round(Number(found[1])) : 0;
    if (length > 0) return length;
  }
  return null;
}
