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
 * Pasted code made readable: escaped code is unescaped, and typographic quotes round values become plain ones. Other
 * text is left as it is.
 */
export function unwrap(pasted: string): Source {
  let source: Source = { text: pasted, places: null };
  for (let times = 0; times < MOST_TIMES && isEscaped(source.text); times += 1) source = unescaped(source);
  return { ...source, text: plainQuotes(source.text) };
}

/** Escaped code that stands among tags of its own, as in a paragraph of an article, made readable; null where there is none. */
export function unwrapWithin(pasted: string): Source | null {
  if (
    !/&(?:amp;)?(?:lt|#60|#x3c);\s{0,9}(?:iframe|frame|object|embed|video|audio|blockquote|a)\b/i.test(pasted)
  )
    return null;
  let source: Source = { text: pasted, places: null };
  for (let times = 0; times < MOST_TIMES && HAS_ESCAPED.test(source.text); times += 1)
    source = unescaped(source);
  return { ...source, text: plainQuotes(source.text) };
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
  const places = new Uint32Array(source.text.length + 1);
  const parts: string[] = [];
  let length = 0;
  const take = (text: string, from: number, step: number) => {
    for (let at = 0; at < text.length; at += 1) places[length + at] = placeOf(source, from + at * step);
    parts.push(text);
    length += text.length;
  };
  let done = 0;
  for (const found of source.text.matchAll(/&(#?[a-z0-9]{1,5});/gi)) {
    const letter = CODES[(found[1] ?? '').toLowerCase()];
    if (letter === undefined) continue;
    take(source.text.slice(done, found.index), done, 1);
    take(letter, found.index, 0);
    done = found.index + found[0].length;
  }
  take(source.text.slice(done), done, 1);
  places[length] = placeOf(source, source.text.length);
  return { text: parts.join(''), places: places.subarray(0, length + 1) };
}

/** Quotes that writing programs put in the place of plain ones. They are only exchanged right about a value. */
const VALUE_IN_QUOTES = /(=\s{0,9})[“”„‟«»″]([^“”„‟«»″<>]*)[“”„‟«»″]/g;
const VALUE_IN_SINGLE_QUOTES = /(=\s{0,9})[‘’‚‛‹›′]([^‘’‚‛‹›′<>]*)[‘’‚‛‹›′]/g;

function plainQuotes(text: string): string {
  if (!/[“”„‟«»″‘’‚‛‹›′]/.test(text) || !/<[a-z]/i.test(text)) return text;
  return text.replace(VALUE_IN_QUOTES, '$1"$2"').replace(VALUE_IN_SINGLE_QUOTES, "$1'$2'");
}
