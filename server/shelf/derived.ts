import { licenceKeyOf } from '#core/rights/house-licence.ts';
import type { Label } from '#core/rights/label.ts';
import { lastDayOf } from '#core/rights/terms.ts';

/** Stands for "no last day" where pieces are put in the order of theirs. */
const NO_LAST_DAY = '9999-12-31';

/** The columns that filters use, made from the label at each write so that they cannot disagree with it. */
export function derivedColumns(label: Label, stem: string, originalName: string, drafted: readonly string[]) {
  return {
    title: label.title,
    creator: label.creator,
    licence: licenceKeyOf(label),
    altState: label.alt.kind,
    source: label.source,
    lastDay: lastDayOf(label.terms) ?? NO_LAST_DAY,
    consent: label.terms.consent,
    isClaimed: drafted.includes('licence'),
    search: searchText([
      label.title,
      label.creator,
      label.caption,
      label.alt.kind === 'text' ? label.alt.text : '',
      ...label.translations.flatMap(({ title, alt, caption }) => [title, alt, caption]),
      label.place,
      label.source,
      label.keywords.join(' '),
      stem,
      originalName,
    ]),
  };
}

const MOST_LETTERS = 20_000;

/** The words of all that is said, one space apart with one before the first, so that the beginning of each can be asked for. */
function searchText(said: readonly string[]): string {
  return ` ${searchWords(said.join(' ')).join(' ')}`.slice(0, MOST_LETTERS);
}

/** The words of a text as the shelf holds and asks for them: letters, their marks and digits. */
export function searchWords(text: string): readonly string[] {
  return text.split(/[^\p{L}\p{M}\p{N}]+/u).filter(Boolean);
}
