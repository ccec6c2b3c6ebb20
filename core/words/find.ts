/** Where something stands in a text: offsets in UTF-16 units, the end not included. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/**
 * Every place of `sought` in a text, from the first to the last, none over another. Case, accents and the kind of
 * apostrophe make no difference, so that what is typed plainly is found as it was set.
 */
export function findAll(text: string, sought: string): readonly Span[] {
  const words = plainly(sought);
  if (words === '') return [];
  const within = plainly(text);
  const spans: Span[] = [];
  for (let at = within.indexOf(words); at >= 0; at = within.indexOf(words, at + words.length))
    spans.push({ from: at, to: at + words.length });
  return spans;
}

/**
 * A text with other words in each place of `sought`, found as `findAll` finds it. Where what stood there begins with a capital,
 * so does what takes its place, and where all of it was capitals, all of it is.
 */
export function replaceAll(text: string, sought: string, words: string): string {
  let made = '';
  let from = 0;
  for (const span of findAll(text, sought)) {
    made += text.slice(from, span.from) + asSet(words, text.slice(span.from, span.to));
    from = span.to;
  }
  return made + text.slice(from);
}

/** Words in the capitals of those that they replace. */
function asSet(words: string, before: string): string {
  const letters = before.replace(/[^\p{L}]/gu, '');
  if (letters.length > 1 && letters === letters.toUpperCase()) return words.toUpperCase();
  const [first = ''] = letters;
  const isCapital = first !== first.toLowerCase();
  return isCapital ? words.replace(/\p{L}/u, (letter) => letter.toUpperCase()) : words;
}

/**
 * How well what was typed names something: 1 where the name begins with it, 0.8 where each typed word begins a word of
 * the name, 0.5 where each stands somewhere in it, and 0 where one does not. Case, accents and the kind of apostrophe make
 * no difference, nor does the order of the words.
 */
export function namesHowWell(typed: string, name: string): 0 | 0.5 | 0.8 | 1 {
  const within = plainly(name);
  const words = plainly(typed).split(/\s+/).filter(Boolean);
  if (!words.every((word) => within.includes(word))) return 0;
  if (within.startsWith(words.join(' '))) return 1;
  const begun = within.split(/[^\p{L}\p{N}]+/u);
  return words.every((word) => begun.some((one) => one.startsWith(word))) ? 0.8 : 0.5;
}

const PLAIN: Readonly<Record<string, string>> = { '’': "'", '‘': "'", '“': '"', '”': '"', '\u00a0': ' ' };

/** As long as the text it is made from, unit by unit, so that offsets hold in both. */
function plainly(text: string): string {
  let plain = '';
  for (const letter of text) {
    const made =
      PLAIN[letter] ??
      letter
        .normalize('NFD')
        .replace(/\p{M}+$/u, '')
        .toLowerCase();
    plain += made.length === letter.length ? made : letter;
  }
  return plain;
}
