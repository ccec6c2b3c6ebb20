import type { CutShort } from './cut-short.ts';

/** What there is to say of the words by which a page is found. */
export interface PageWords {
  readonly title: string;
  readonly summary: string;
  readonly keyPhrase: string;
  /** What the page begins with. */
  readonly opening: string;
}

/** What is shown of them in a listing, and under a shared link. */
export interface PageWordsShown {
  readonly title: CutShort;
  readonly summary: CutShort;
  readonly sharedTitle: CutShort;
  readonly sharedSummary: CutShort;
}

/** Sentences about the words of a page; nothing where nothing is to be said. Never a score. */
export function sayPageWords(words: PageWords, shown: PageWordsShown): readonly string[] {
  const { title, summary, keyPhrase, opening } = words;
  const lines: string[] = [];
  if (title === '') lines.push('It has no title, so a listing shows its address alone.');
  if (shown.title.isCut) lines.push(`A listing ends its title after “${last(shown.title.shown)}”.`);
  if (summary === '')
    lines.push('It has no summary, so listings and shared links show whatever words they find on it.');
  if (shown.summary.isCut) lines.push(`A listing ends its summary after “${last(shown.summary.shown)}”.`);
  else if (shown.sharedSummary.isCut)
    lines.push(`A shared link ends its summary after “${last(shown.sharedSummary.shown)}”.`);
  if (title !== '' && fold(summary) === fold(title)) lines.push('Its summary only says its title again.');
  const phrase = fold(keyPhrase);
  if (phrase !== '') {
    const missing = [
      fold(title).includes(phrase) ? '' : 'the title',
      fold(summary).includes(phrase) ? '' : 'the summary',
      fold(opening).includes(phrase) ? '' : 'what the page begins with',
    ].filter(Boolean);
    if (missing.length > 0)
      lines.push(
        `“${keyPhrase}” is not in ${new Intl.ListFormat('en-GB', { type: 'disjunction' }).format(missing)}.`,
      );
  }
  return lines;
}

const fold = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .trim();

/** The last words that are shown, without the dots. */
const last = (shown: string): string =>
  shown
    .replace(/\s*\.\.\.$/, '')
    .split(' ')
    .slice(-3)
    .join(' ');
