import { decodeHTML, decodeHTMLAttribute } from 'entities/decode';

/** A stretch of the text that was read: from its first letter up to, not including, `to`. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

export interface Attribute extends Stretch {
  readonly name: string;
  readonly value: string;
  /** Where its value stands, without quotes; an empty stretch at its end where it has none. */
  readonly valueAt: Stretch;
}

export interface Tag extends Stretch {
  readonly kind: 'start' | 'end';
  readonly name: string;
  /** The first of each name, as a browser takes them. */
  readonly attributes: readonly Attribute[];
}

interface Text extends Stretch {
  readonly kind: 'text';
  readonly text: string;
}

export type Piece = Tag | Text;

/** What of markup is read: the tags of HTML alone, its text too, or XML, where CDATA is text and no element hides markup. */
type MarkupMode = 'tags' | 'text' | 'xml';

/**
 * The tags of markup in any condition, in order, as a browser would part them (WHATWG HTML, 13.2.5 Tokenization). No
 * tree is built, so that the time is linear in the length whatever is nested in what. What a browser leaves out (a tag
 * without its end, comments) is left out.
 */
export function* readMarkup(source: string, mode: MarkupMode = 'tags'): Generator<Piece, void> {
  const isXml = mode === 'xml';
  const hasText = mode !== 'tags';
  let at = 0;
  while (at < source.length) {
    const open = source.indexOf('<', at);
    const end = open < 0 ? source.length : open;
    if (hasText && end > at)
      yield { kind: 'text', text: decodeHTML(source.slice(at, end)), from: at, to: end };
    if (open < 0) return;
    const next = source.charCodeAt(open + 1);
    if (isLetter(next) || (next === SLASH && isLetter(source.charCodeAt(open + 2)))) {
      const tag = readTag(source, open, next === SLASH);
      if (!tag) return;
      yield tag;
      at = tag.kind === 'start' && !isXml ? afterRawText(source, tag) : tag.to;
    } else if (isXml && source.startsWith('<![CDATA[', open)) {
      const close = endBefore(source, ']]>', open + 9);
      yield { kind: 'text', text: source.slice(open + 9, close), from: open, to: close };
      at = close + 3;
    } else if (next === EXCLAMATION || next === QUESTION || next === SLASH) at = afterComment(source, open);
    else {
      if (hasText) yield { kind: 'text', text: '<', from: open, to: open + 1 };
      at = open + 1;
    }
  }
}

const SLASH = 0x2f;
const EXCLAMATION = 0x21;
const QUESTION = 0x3f;
const EQUALS = 0x3d;
const CLOSE = 0x3e;
const DOUBLE = 0x22;
const SINGLE = 0x27;

function isLetter(code: number): boolean {
  return (code >= 0x61 && code <= 0x7a) || (code >= 0x41 && code <= 0x5a);
}

/** HTML's own blanks: tab, line feed, form feed, carriage return, space. */
function isBlank(code: number): boolean {
  return code === 0x20 || code === 0x0a || code === 0x09 || code === 0x0d || code === 0x0c;
}

function endBefore(source: string, mark: string, from: number): number {
  const at = source.indexOf(mark, from);
  return at < 0 ? source.length : at;
}

/** A tag from its `<`, or undefined where the text ends inside it. */
function readTag(source: string, from: number, isEnd: boolean): Tag | undefined {
  const nameFrom = from + (isEnd ? 2 : 1);
  let at = nameFrom;
  while (at < source.length && !endsName(source.charCodeAt(at))) at += 1;
  const name = asName(source.slice(nameFrom, at));
  const attributes: Attribute[] = [];
  let names: Set<string> | null = null;
  while (at < source.length) {
    const code = source.charCodeAt(at);
    if (code === CLOSE) {
      const kind = isEnd ? 'end' : 'start';
      return { kind, name, attributes: isEnd ? [] : attributes, from, to: at + 1 };
    }
    if (isBlank(code) || code === SLASH) {
      at += 1;
      continue;
    }
    const attribute = readAttribute(source, at);
    if (!attribute) return undefined;
    names ??= new Set();
    if (!names.has(attribute.name)) {
      names.add(attribute.name);
      attributes.push(attribute);
    }
    at = attribute.to;
  }
  return undefined;
}

function endsName(code: number): boolean {
  return isBlank(code) || code === SLASH || code === CLOSE;
}

/** Names are compared in small letters of ASCII alone. */
function asName(text: string): string {
  if (/^[a-z-]*$/.test(text)) return text;
  return text.replace(/[A-Z]+/g, (letters) => letters.toLowerCase()).replaceAll('\0', '\uFFFD');
}

/** An attribute with its value, or undefined where the text ends inside it. */
function readAttribute(source: string, from: number): Attribute | undefined {
  // An equals sign at the start of a name is part of it.
  let at = from + 1;
  while (at < source.length && source.charCodeAt(at) !== EQUALS && !endsName(source.charCodeAt(at))) at += 1;
  const name = asName(source.slice(from, at));
  const nameTo = at;
  at = afterBlanks(source, at);
  if (source.charCodeAt(at) !== EQUALS)
    return { name, value: '', from, to: nameTo, valueAt: { from: nameTo, to: nameTo } };
  at = afterBlanks(source, at + 1);
  const quote = source.charCodeAt(at);
  if (quote === DOUBLE || quote === SINGLE) {
    const end = source.indexOf(source.charAt(at), at + 1);
    if (end < 0) return undefined;
    return {
      name,
      value: asValue(source.slice(at + 1, end)),
      from,
      to: end + 1,
      valueAt: { from: at + 1, to: end },
    };
  }
  const valueFrom = at;
  while (at < source.length && source.charCodeAt(at) !== CLOSE && !isBlank(source.charCodeAt(at))) at += 1;
  return {
    name,
    value: asValue(source.slice(valueFrom, at)),
    from,
    to: at,
    valueAt: { from: valueFrom, to: at },
  };
}

function asValue(raw: string): string {
  if (!/[&\r\0]/.test(raw)) return raw;
  const text = raw.includes('&') ? decodeHTMLAttribute(raw) : raw;
  return text.replace(/\r\n?/g, '\n').replaceAll('\0', '\uFFFD');
}

function afterBlanks(source: string, from: number): number {
  let at = from;
  while (isBlank(source.charCodeAt(at))) at += 1;
  return at;
}

/** Comments, document types and what is taken for a comment: up to the first `>`, but for real comments. */
function afterComment(source: string, open: number): number {
  if (!source.startsWith('<!--', open)) return endBefore(source, '>', open + 2) + 1;
  const short = /^>|^->/.exec(source.slice(open + 4, open + 6));
  if (short) return open + 4 + short[0].length;
  // One search for both ends: a search for the one that is not there would go to the end of the text at each comment.
  const ends = /--!?>/g;
  ends.lastIndex = open + 4;
  const end = ends.exec(source);
  return end ? end.index + end[0].length : source.length;
}

/** Elements whose content is no markup. Fields for text are read, since share dialogs offer code in them. */
const RAW = new Set(['style', 'iframe', 'xmp', 'noembed', 'noframes']);

function afterRawText(source: string, tag: Tag): number {
  if (tag.name === 'script') return endOfScript(source, tag.to);
  return RAW.has(tag.name) ? endOfRawText(source, tag.name, tag.to) : tag.to;
}

/** Where the end tag of an element begins whose content is no markup. */
function endOfRawText(source: string, name: string, from: number): number {
  const ends = new RegExp(`</${name}[\\s/>]`, 'gi');
  ends.lastIndex = from;
  return ends.exec(source)?.index ?? source.length;
}

/**
 * Where the end tag of a script begins (WHATWG HTML, script data escaped and double escaped states): a script that is
 * named in what looks like a comment of a script hides one end.
 */
function endOfScript(source: string, from: number): number {
  const marks = /<!--|-->|<script(?=[\s/>])|<\/script(?=[\s/>])/gi;
  marks.lastIndex = from;
  let state: 'plain' | 'escaped' | 'twice' = 'plain';
  for (let found = marks.exec(source); found; found = marks.exec(source)) {
    const mark = found[0].toLowerCase();
    if (mark === '</script') {
      if (state !== 'twice') return found.index;
      state = 'escaped';
    } else if (mark === '-->') state = 'plain';
    else if (mark === '<script' && state === 'escaped') state = 'twice';
    else if (mark === '<!--' && state === 'plain') {
      state = 'escaped';
      // Its own dashes may be those of its end: `<!-->`.
      marks.lastIndex = found.index + 2;
    }
  }
  return source.length;
}

/** The value of an attribute, trimmed; empty where it has none. */
/** An element by its name and attributes, whoever read it. */
export interface Named {
  readonly name: string;
  readonly attributes: readonly { readonly name: string; readonly value: string }[];
}

export function attributeText({ attributes }: Named, name: string): string {
  return attributes.find((attribute) => attribute.name === name)?.value.trim() ?? '';
}

export function attributeOf(tag: Tag, name: string): Attribute | undefined {
  return tag.attributes.find((attribute) => attribute.name === name);
}
