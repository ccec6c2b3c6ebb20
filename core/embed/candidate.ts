import { type Oembed, readOembed, readOembedData } from '../formats/oembed.ts';
import { readWebAddress } from './address.ts';
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
import { placeOf, type Source, unwrap } from './unwrap.ts';

/** From what a thing was read. */
export type ReadFrom = 'address' | 'frame' | 'player' | 'object' | 'widget' | 'quote' | 'link' | 'oembed';

/** A part of what was pasted: what was kept of it as a fact, or what does not come along, with why. */
export interface Mark extends Stretch {
  readonly as: 'fact' | 'dropped';
  readonly why: string;
}

/** A stretch of pasted text that holds an address, as it stands there. */
interface AddressText extends Stretch {
  readonly raw: string;
}

/** Something that may become an embed, as it stood in what was pasted. */
export interface Candidate {
  readonly from: ReadFrom;
  readonly address: string;
  readonly addressText: AddressText | null;
  readonly tag: Tag | null;
  readonly width: number | null;
  readonly height: number | null;
  /** The share of its height in its width, in percent, where only a wrapper says it. */
  readonly heightPercent: number | null;
  readonly title: string;
  readonly oembed: Oembed | null;
}

export interface Gathered {
  readonly source: Source;
  readonly candidates: readonly Candidate[];
  readonly marks: readonly Mark[];
  /** Sentences of what was there and is nothing that can be embedded. */
  readonly notes: readonly string[];
}

/** More things than these are not taken from one paste. */
const MOST_THINGS = 50;

/** More tags that name a thing, and more parts that are told apart, are not looked at. */
const MOST_FOUND = 500;
const MOST_MARKS = 5000;

const PLAIN: Omit<Candidate, 'from' | 'address'> = {
  addressText: null,
  tag: null,
  width: null,
  height: null,
  heightPercent: null,
  title: '',
  oembed: null,
};

/**
 * All things in a pasted text that may become embeds: data in oEmbed, markup in any condition, or addresses in plain
 * text. Linear in its length. Never throws.
 */
export function gatherCandidates(pasted: string, hosts: Hosts): Gathered {
  const start = pasted.trimStart();
  if (/^(\{|\[\s{0,99}[{\]])/.test(start)) return fromData(pasted, hosts);
  if (/^(<\?xml[^>]{0,200}>\s{0,99})?<oembed[\s>]/i.test(start))
    return fromOembed(pasted, [readOembed(pasted)], hosts);
  const source = unwrap(pasted);
  return HAS_TAG.test(source.text) ? fromMarkup(source, hosts) : fromText(source);
}

/** A tag, and not an address in pointed brackets. */
const HAS_TAG = /<(?:[a-z][a-z0-9-]*(?:[\s/>]|$)|[!/])/i;

function fromData(pasted: string, hosts: Hosts): Gathered {
  let data: unknown;
  try {
    data = JSON.parse(pasted);
  } catch {
    return nothing(
      pasted,
      'This looks like data, but it is not whole. Copy the answer from its first brace to its last.',
    );
  }
  const list = Array.isArray(data) ? data.slice(0, MOST_THINGS) : [data];
  return fromOembed(pasted, list.map(readOembedData), hosts);
}

function nothing(pasted: string, note: string): Gathered {
  return { source: { text: pasted, places: null }, candidates: [], marks: [], notes: [note] };
}

function fromOembed(
  pasted: string,
  readings: readonly ReturnType<typeof readOembed>[],
  hosts: Hosts,
): Gathered {
  const candidates: Candidate[] = [];
  const notes: string[] = [];
  for (const reading of readings) {
    if (reading.kind === 'fault') {
      notes.push(reading.sentence);
      continue;
    }
    const { answer } = reading;
    if (answer.type === 'photo') {
      notes.push(
        'This answer is about a picture. Fetch it under Gather, so that its licence and maker come along.',
      );
      continue;
    }
    const [inner] = answer.html ? fromMarkup(unwrap(answer.html), hosts).candidates : [];
    const address = inner?.address ?? answer.url;
    if (address === '') notes.push('This answer names nothing that can be shown.');
    else
      candidates.push({
        ...PLAIN,
        ...(inner ?? {}),
        from: 'oembed',
        address,
        addressText: null,
        width: answer.width ?? inner?.width ?? null,
        height: answer.height ?? inner?.height ?? null,
        title: answer.title || inner?.title || '',
        oembed: answer,
      });
  }
  return { source: { text: pasted, places: null }, candidates, marks: [], notes };
}

/** Addresses in plain text, each in a line or between blanks; one alone may lack its `https://`. */
function fromText(source: Source): Gathered {
  const trimmed = source.text.trim().replace(/^[<"“]{1,9}|[>"”]{1,9}$/g, '');
  const isOnly = trimmed !== '' && !WORD_END.test(trimmed);
  const words = isOnly
    ? [{ word: trimmed, at: source.text.indexOf(trimmed) }]
    : wordsWithSlashes(source.text);
  const candidates: Candidate[] = [];
  for (const { word, at } of words) {
    if (candidates.length >= MOST_THINGS) break;
    const text = addressIn(word, isOnly);
    if (!text) continue;
    const from = at + text.at;
    candidates.push({
      ...PLAIN,
      from: 'address',
      address: text.address,
      addressText: { raw: text.raw, from, to: from + text.raw.length },
    });
  }
  const notes = candidates.length > 0 || trimmed === '' ? [] : [NOTHING_THERE];
  return { source, candidates: unlike(candidates), marks: [], notes };
}

const WORD_END = /[\s<>"“”]/;

/** The words that have two slashes in them, each with its place. Every letter is looked at once. */
function* wordsWithSlashes(text: string): Generator<{ readonly word: string; readonly at: number }> {
  let done = 0;
  for (let slashes = text.indexOf('//'); slashes >= 0; slashes = text.indexOf('//', done)) {
    let from = slashes;
    while (from > done && !WORD_END.test(text.charAt(from - 1))) from -= 1;
    let to = slashes;
    while (to < text.length && !WORD_END.test(text.charAt(to))) to += 1;
    yield { word: text.slice(from, to), at: from };
    done = to;
  }
}

const NOTHING_THERE =
  'No address and no embed code is in this text. Paste the address of the page that shows the thing, or the code that its host offers under Share or Embed.';

function addressIn(
  word: string,
  isOnly: boolean,
): { readonly address: string; readonly raw: string; readonly at: number } | undefined {
  if (!isOnly && !word.includes('//')) return undefined;
  // "[words](https://…)" and "(https://…)," as they stand in notes and letters; never what follows another scheme.
  const at = Math.max(0, word.search(/(?<=^|[([<'‘«=])(https?:)?\/\//i));
  const raw = word
    .slice(at)
    .replace(/[),.;:!?\]'’]{1,9}$/, (end) =>
      end.startsWith(')') && word.slice(at).includes('(') ? ')' : '',
    );
  if (/^(https?:)?\/\/./i.test(raw)) return { address: raw, raw, at };
  if (!isOnly) return undefined;
  if (/^[a-z][a-z0-9+.-]{0,30}:(?!\d)/i.test(word)) return { address: word, raw: word, at: 0 };
  return /^[a-z0-9-]+(\.[a-z0-9-]+)+(:\d+)?(\/|$)/i.test(word)
    ? { address: `https://${word}`, raw: word, at: 0 }
    : undefined;
}

/** Each address once. */
function unlike(candidates: readonly Candidate[]): readonly Candidate[] {
  const seen = new Set<string>();
  return candidates.filter(({ address }) => !seen.has(address) && seen.add(address));
}

function fromMarkup(source: Source, hosts: Hosts): Gathered {
  const gathering = new Gathering(source, hosts);
  for (const piece of readMarkup(source.text)) gathering.take(piece);
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
    if (piece.kind === 'text' || this.#isFull()) return;
    if (piece.kind === 'end') {
      if (piece.name === 'script') this.#endScript(piece);
      if (PLAYERS.has(piece.name)) this.#player = null;
      return;
    }
    this.#markAttributes(piece);
    this.#element(piece);
  }

  /** Enough for any honest paste; what comes after is not looked at, so that a hostile one costs little. */
  #isFull(): boolean {
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
    if (from === 'link' || from === 'quote') {
      if (!address.includes('//')) return;
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

/** Marks in the letters of what was pasted, in order, none overlapping another: what is struck out goes before. */
export function marksOfPasted(source: Source, marks: readonly Mark[]): readonly Mark[] {
  const placed = marks
    .filter(({ from, to }) => to > from)
    .map((mark) => ({ ...mark, from: placeOf(source, mark.from), to: placeOf(source, mark.to) }))
    .sort((a, b) => a.from - b.from || b.to - a.to);
  const kept: Mark[] = [];
  let end = 0;
  for (const mark of placed) {
    if (mark.from < end) continue;
    kept.push(mark);
    end = mark.to;
  }
  return kept;
}
