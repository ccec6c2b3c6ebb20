/** A text to be read, with where each of its letters stands in what was pasted; null where it is the same. */
export interface Source {
  readonly text: string;
  readonly places: Uint32Array | null;
}

/** Where a letter of the source stands in what was pasted. */
export function placeOf(source: Source, at: number): number {
  return source.places?.[at] ?? at;
}

/** Code that was escaped, as it stands in articles and messages, is escaped once or twice. */
const MOST_TIMES = 2;

/**
 * Pasted code made readable: what mail, programs and addresses do to it is undone, escaped code is unescaped, typographic
 * quotes round values become plain ones, and a quote that was never closed ends with its address. Other text is left as
 * it is.
 */
export function unwrap(pasted: string): Source {
  let source: Source = { text: pasted, places: null };
  for (const { is, parts, value } of WRITTEN_IN)
    if (is.test(source.text)) source = exchanged(source, parts, value);
  for (let times = 0; times < MOST_TIMES && isEscaped(source.text); times += 1) source = unescaped(source);
  return { ...source, text: closedQuotes(plainQuotes(pointedBrackets(source.text))) };
}

interface Writing {
  readonly is: RegExp;
  readonly parts: RegExp;
  readonly value: (part: string) => string | undefined;
}

const fromNumber = (digits: string) => String.fromCharCode(Number.parseInt(digits, 16));

function decoded(part: string): string | undefined {
  try {
    return decodeURIComponent(part);
  } catch {
    return undefined;
  }
}

/** Ways in which code is written inside something else. */
const WRITTEN_IN: readonly Writing[] = [
  // A mail as it travels (RFC 2045, 6.7, quoted-printable).
  {
    is: /=3D["'“]/,
    parts: /=(?:\r?\n|[0-7][0-9A-F])/g,
    value: (part) => (part.length === 3 && /\w\w$/.test(part) ? fromNumber(part.slice(1)) : ''),
  },
  // A text in a program (ECMA-262, 12.9.4; JSON).
  {
    is: /=\s{0,9}\\["']|\\u003c|<\\\/[a-z]/i,
    parts: /\\(?:["'/\\]|[nrt]|u00[0-7][0-9a-f])/gi,
    value: (part) =>
      part.length > 2 ? fromNumber(part.slice(4)) : /[nrt]$/.test(part) ? ' ' : part.slice(1),
  },
  // Code as an address carries it (URL standard, percent-encoded bytes).
  {
    is: /^\s{0,99}%3C[a-z][a-z0-9-]{0,40}(?:%20|\+|%09|%0D|%0A|%3E)/i,
    parts: /(?:%[0-9a-f]{2}){1,999}|\+/gi,
    value: (part) => (part === '+' ? ' ' : decoded(part)),
  },
];

/** A tag in square brackets, as some writing programs take code. */
const IN_BRACKETS = /\[((?:iframe|video|audio|embed|object)\s[^[\]<>]{1,2000})\]/gi;

function pointedBrackets(text: string): string {
  return text.includes('[')
    ? text.replace(IN_BRACKETS, (tag, inner: string) =>
        /\b(?:src|data)\s{0,9}=/.test(inner) ? `<${inner}>` : tag,
      )
    : text;
}

/** A quote about an address that runs on into the next name, or to the end of the tag. Each is exchanged letter for letter. */
const RUNS_INTO_NAME = /(=\s{0,9}"(?:https?:)?\/\/[^"\s<>]{1,2000})\s(?=\s{0,99}[a-z-]{2,30}=["'])/gi;
const RUNS_INTO_NAME_SINGLE = /(=\s{0,9}'(?:https?:)?\/\/[^'\s<>]{1,2000})\s(?=\s{0,99}[a-z-]{2,30}=["'])/gi;
const RUNS_OUT = /(=\s{0,9}"(?:https?:)?\/\/[^"\s<>]{1,2000})>/gi;
const RUNS_OUT_SINGLE = /(=\s{0,9}'(?:https?:)?\/\/[^'\s<>]{1,2000})>/gi;

function closedQuotes(text: string): string {
  if (!text.includes('<')) return text;
  return text
    .replace(RUNS_INTO_NAME, '$1"')
    .replace(RUNS_INTO_NAME_SINGLE, "$1'")
    .replace(RUNS_OUT, '$1"')
    .replace(RUNS_OUT_SINGLE, "$1'");
}

/** Escaped code that stands among tags of its own, as in a paragraph of an article, made readable; null where there is none. */
export function unwrapWithin(pasted: string): Source | null {
  if (
    !/&(?:amp;)?(?:lt|#60|#x3c);\s{0,9}(?:iframe|frame|object|embed|video|audio|blockquote|a|[a-z][a-z0-9]{0,20}-[a-z0-9-]{1,40})\b/i.test(
      pasted,
    )
  )
    return null;
  let source: Source = { text: pasted, places: null };
  for (let times = 0; times < MOST_TIMES && HAS_ESCAPED.test(source.text); times += 1)
    source = unescaped(source);
  return { ...source, text: closedQuotes(plainQuotes(source.text)) };
}

const HAS_ESCAPED = /&(amp;)?(lt|#60|#x3c);\s{0,9}[a-z]/i;

function isEscaped(text: string): boolean {
  return /&(amp;)?(lt|#60|#x3c);\s{0,9}[a-z]/i.test(text) && !/<[a-z]/i.test(text);
}

const CODES: Readonly<Record<string, string>> = {
  lt: '<',
  '#60': '<',
  '#x3c': '<',
  gt: '>',
  '#62': '>',
  '#x3e': '>',
  quot: '"',
  '#34': '"',
  '#x22': '"',
  apos: "'",
  '#39': "'",
  '#039': "'",
  '#x27': "'",
  amp: '&',
  '#38': '&',
  nbsp: ' ',
};

function unescaped(source: Source): Source {
  return exchanged(source, /&(#?[a-z0-9]{1,5});/gi, (part) => CODES[part.slice(1, -1).toLowerCase()]);
}

/** A source in which parts are written as what they stand for, each with its place in what was pasted. */
function exchanged(source: Source, parts: RegExp, value: (part: string) => string | undefined): Source {
  const places = new Uint32Array(source.text.length + 1);
  const written: string[] = [];
  let length = 0;
  const take = (text: string, from: number, step: number) => {
    for (let at = 0; at < text.length; at += 1) places[length + at] = placeOf(source, from + at * step);
    written.push(text);
    length += text.length;
  };
  let done = 0;
  for (const found of source.text.matchAll(parts)) {
    const letters = value(found[0]);
    if (letters === undefined) continue;
    take(source.text.slice(done, found.index), done, 1);
    take(letters, found.index, 0);
    done = found.index + found[0].length;
  }
  take(source.text.slice(done), done, 1);
  places[length] = placeOf(source, source.text.length);
  return { text: written.join(''), places: places.subarray(0, length + 1) };
}

/** Quotes that writing programs put in the place of plain ones. They are only exchanged right about a value. */
const VALUE_IN_QUOTES = /(=\s{0,9})[“”„‟«»″]([^“”„‟«»″<>]*)[“”„‟«»″]/g;
const VALUE_IN_SINGLE_QUOTES = /(=\s{0,9})[‘’‚‛‹›′]([^‘’‚‛‹›′<>]*)[‘’‚‛‹›′]/g;

function plainQuotes(text: string): string {
  if (!/[“”„‟«»″‘’‚‛‹›′]/.test(text) || !/<[a-z]/i.test(text)) return text;
  return text.replace(VALUE_IN_QUOTES, '$1"$2"').replace(VALUE_IN_SINGLE_QUOTES, "$1'$2'");
}
