import { oneLine } from '../words/one-line.ts';
import { type Candidate, type Gathered, MOST_THINGS, NOTHING_THERE, PLAIN, unlike } from './gathered.ts';
import type { Source } from './unwrap.ts';

/** Addresses in plain text, each in a line or between blanks; one alone may lack its `https://`. */
export function fromText(source: Source): Gathered {
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
      title: calledInNotes(source.text, from, from + text.raw.length),
      addressText: { raw: text.raw, from, to: from + text.raw.length },
    });
  }
  const notes = candidates.length > 0 || trimmed === '' ? [] : [NOTHING_THERE];
  return { source, candidates: unlike(candidates), marks: [], notes };
}

/** What notes and messages call a link: `[words](https://…)`, `[url=https://…]words[/url]`. */
function calledInNotes(text: string, from: number, to: number): string {
  const before = text.slice(Math.max(0, from - 300), from);
  const after = /^\]([^[\]]{1,300})\[\//.exec(text.slice(to, to + 310));
  if (after && before.endsWith('=')) return oneLine(after[1] ?? '');
  if (!before.endsWith('](') && !before.endsWith('](<')) return '';
  const open = before.lastIndexOf('[');
  return open < 0 ? '' : oneLine(before.slice(open + 1, before.lastIndexOf(']')).replace(/[*_`]/g, ''));
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

/** In a path a bracket belongs to the notes about the address; about a host it holds a number. */
function beforeBracket(text: string): string {
  const path = text.indexOf('/', text.indexOf('//') + 2);
  const bracket = path < 0 ? -1 : text.slice(path).search(/[[\]]/);
  return bracket < 0 ? text : text.slice(0, path + bracket);
}

function addressIn(
  word: string,
  isOnly: boolean,
): { readonly address: string; readonly raw: string; readonly at: number } | undefined {
  if (!isOnly && !word.includes('//')) return undefined;
  // "[words](https://…)", "[film]https://…[/film]" and "(https://…)," as they stand in notes and letters; never what
  // follows another scheme. A bracket is no letter of an address but about a host's number.
  const at = Math.max(0, word.search(/(?<=^|[([<'‘«=\]])(https?:)?\/\//i));
  const raw = beforeBracket(word.slice(at)).replace(/[),.;:!?\]'’]{1,9}$/, (end) =>
    end.startsWith(')') && word.slice(at).includes('(') ? ')' : '',
  );
  if (/^(https?:)?\/\/./i.test(raw)) return { address: raw, raw, at };
  if (!isOnly) return undefined;
  if (/^[a-z][a-z0-9+.-]{0,30}:(?!\d)/i.test(word)) return { address: word, raw: word, at: 0 };
  return /^[a-z0-9-]+(\.[a-z0-9-]+)+(:\d+)?(\/|$)/i.test(word)
    ? { address: `https://${word}`, raw: word, at: 0 }
    : undefined;
}
