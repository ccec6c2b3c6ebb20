import { transliterate } from './letters.ts';
import { nameFault, STEM_LIMIT } from './rule.ts';

/** Of longer texts only the beginning makes a name; even where most of it is left away, that is enough. */
const READ_LIMIT = 2000;

/** Signs that stand within words: "d'Avril" is one word. */
const APOSTROPHES = /['’‘ʼʻ`´ʹʺ′″]/g;

/**
 * A web-safe part of a name: lower-case ASCII letters, digits and single hyphens, none at either end, at most 80
 * letters, cut at a hyphen where one is near. Empty when nothing of the text can be kept. `language` (BCP 47) is that of
 * the text.
 */
export function webSafe(text: string, language = ''): string {
  const joined = transliterate(text.slice(0, READ_LIMIT).replace(APOSTROPHES, ''), language)
    .replace(APOSTROPHES, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return shorten(joined);
}

const NEAR_LETTERS = 20;

function shorten(joined: string): string {
  if (joined.length <= STEM_LIMIT) return joined;
  const cut = joined.slice(0, STEM_LIMIT);
  const hyphen = cut.lastIndexOf('-');
  return (hyphen >= STEM_LIMIT - NEAR_LETTERS ? cut.slice(0, hyphen) : cut).replace(/-+$/, '');
}

/**
 * A good stem from any text. A device name, an empty result or one of digits only gets `word` in front (a word
 * from the label, or the kind of piece).
 */
export function goodStem(text: string, word: string, language = ''): string {
  const stem = webSafe(text, language);
  const fault = nameFault(stem);
  if (fault === undefined) return stem;
  return webSafe(`${webSafe(word, language) || 'piece'} ${stem}`);
}
