import * as v from 'valibot';
import { LanguageTagSchema, primaryOf } from '../words/language-tag.ts';

/** What a part of a credit is about. */
const CREDIT_PARTS = [
  'title',
  'maker',
  'notice',
  'source',
  'licence',
  'changes',
  'id',
  'licensed-to',
  'accessed',
] as const;
export type CreditPartKind = (typeof CREDIT_PARTS)[number];

/** Parts of a credit as they are called on screen. */
export const CREDIT_PART_WORDS: Readonly<Record<CreditPartKind, string>> = {
  title: 'title',
  maker: 'maker',
  notice: 'copyright notice',
  source: 'source',
  licence: 'licence',
  changes: 'what was changed',
  id: 'ID at the source',
  'licensed-to': 'licensed to',
  accessed: 'day of access',
};

/** "the maker and the licence". */
export const sayCreditParts = (parts: readonly CreditPartKind[]): string =>
  inWords.format(parts.map((part) => `the ${CREDIT_PART_WORDS[part]}`));

const inWords = new Intl.ListFormat('en-GB', { type: 'conjunction' });

const CreditRunSchema = v.variant('kind', [
  v.strictObject({
    kind: v.literal('words'),
    text: v.pipe(v.string(), v.minLength(1), v.maxLength(300, 'At most 300 letters fit here.')),
  }),
  v.strictObject({ kind: v.literal('part'), part: v.picklist(CREDIT_PARTS) }),
]);

/**
 * A credit in somebody's own words, in one language: words, and between them parts of the label, which are not copied but
 * named, so that it follows every change of the label.
 */
export const CreditWordsSchema = v.strictObject({
  language: LanguageTagSchema,
  runs: v.pipe(v.array(CreditRunSchema), v.minLength(1), v.maxLength(40)),
});
export type CreditWords = v.InferOutput<typeof CreditWordsSchema>;

/** The own words for a page's language, by its tag or else by its language without the region (RFC 4647 3.4); null for none. */
export function creditWordsIn(all: readonly CreditWords[], language: string): CreditWords | null {
  const wanted = language.toLowerCase();
  return (
    all.find((one) => one.language.toLowerCase() === wanted) ??
    all.find((one) => primaryOf(one.language) === primaryOf(wanted)) ??
    null
  );
}

/** What a label knows that can stand in a credit, as it is read there. */
export type CreditFacts = ReadonlyMap<CreditPartKind, string>;

/**
 * A credit as it was typed, with each fact in it named instead of copied: the first place where it stands as whole words,
 * the longest fact first, so that a maker's name inside a copyright notice is not taken for the maker.
 */
export function readCreditWords(typed: string, facts: CreditFacts): CreditWords['runs'] {
  let runs: CreditWords['runs'] = [{ kind: 'words', text: typed }];
  const known = [...facts]
    .filter(([, text]) => text !== '')
    .sort(([, one], [, other]) => other.length - one.length);
  for (const [part, text] of known) {
    const at = runs.findIndex((run) => run.kind === 'words' && placeOf(text, run.text) >= 0);
    const run = runs[at];
    if (run?.kind !== 'words') continue;
    const from = placeOf(text, run.text);
    runs = [
      ...runs.slice(0, at),
      ...wordsOf(run.text.slice(0, from)),
      { kind: 'part', part },
      ...wordsOf(run.text.slice(from + text.length)),
      ...runs.slice(at + 1),
    ];
  }
  return runs;
}

const wordsOf = (text: string): CreditWords['runs'] => (text === '' ? [] : [{ kind: 'words', text }]);

const LETTER = /[\p{L}\p{N}]/u;

/** Where words stand in a text with no letter grown to them; -1 for nowhere. */
function placeOf(words: string, text: string): number {
  for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + 1)) {
    const before = text.slice(0, at);
    const after = text.slice(at + words.length);
    const isGrown =
      (LETTER.test(words.at(0) ?? '') && LETTER.test(before.at(-1) ?? '')) ||
      (LETTER.test(words.at(-1) ?? '') && LETTER.test(after.at(0) ?? ''));
    if (!isGrown) return at;
  }
  return -1;
}
