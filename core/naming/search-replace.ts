import { goodStem, webSafe } from './names.ts';

export interface SearchReplace {
  readonly search: string;
  readonly replace: string;
}

/**
 * A stem in which every `search` stands as `replace`, both read web-safe. The stem itself when it has none, and a
 * good stem in every case; `kind` is put in front when nothing else is left.
 */
export function replacedInStem(stem: string, { search, replace }: SearchReplace, kind: string): string {
  const wanted = webSafe(search);
  if (wanted === '' || !stem.includes(wanted)) return stem;
  return goodStem(stem.replaceAll(wanted, webSafe(replace)), kind);
}

/** A text in which every `search`, in small or capital letters, stands as `replace`, without doubled spaces. */
export function replacedInText(text: string, { search, replace }: SearchReplace): string {
  if (search.trim() === '') return text;
  const literal = search.trim().replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const replaced = text.replace(new RegExp(literal, 'giu'), () => replace.trim());
  return replaced === text ? text : replaced.replace(/ {2,}/g, ' ').trim();
}
