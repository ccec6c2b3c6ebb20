import * as v from 'valibot';
import { wordsOfFileName } from './gibberish.ts';
import { goodStem, webSafe } from './names.ts';

/** The parts a name can be made of, in the order they are offered. */
export const NAME_PARTS = ['subject', 'place', 'maker', 'date', 'number', 'word'] as const;

/**
 * One part of a pattern; `word` is a fixed word, and `number` the place in a run of many, left out where a piece is
 * named by itself. Sizes belong to a cut's name, never to a piece's.
 */
const NamePartSchema = v.variant('part', [
  v.strictObject({ part: v.picklist(['subject', 'place', 'maker', 'date', 'number']) }),
  v.strictObject({
    part: v.literal('word'),
    word: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(20)),
  }),
]);
export type NamePart = v.InferOutput<typeof NamePartSchema>;
export const NamePatternSchema = v.pipe(v.array(NamePartSchema), v.minLength(1), v.maxLength(8));

/** What a name can be made from. Dates are ISO 8601 (YYYY-MM-DD), empty where unknown. */
export interface NameFacts {
  readonly title: string;
  readonly place: string;
  readonly maker: string;
  readonly taken: string;
  readonly fileName: string;
  /** Subject words of the label (IPTC keywords), most telling first. */
  readonly words?: readonly string[];
  /** The folder's path; its last part says something of what lies in it. */
  readonly folder?: string;
  /** The language of the title (BCP 47). */
  readonly language?: string;
  /** The place in a run of many, already with its leading noughts. */
  readonly number?: string;
  /** Put in front when nothing else is left, such as "picture". */
  readonly kind: string;
}

export type SubjectSource = 'title' | 'file name' | 'words' | 'folder' | 'kind';

/** How many words of the label make a subject. */
const SUBJECT_WORDS = 3;

/**
 * What a piece shows, in a few web-safe words, and where they are from: the title, else the words a person wrote in
 * the file name, else the label's subject words, else the folder, else the kind.
 */
export function subjectOf(facts: NameFacts): { readonly subject: string; readonly from: SubjectSource } {
  const { title, fileName, words = [], folder = '', language, kind } = facts;
  const offers: readonly (readonly [SubjectSource, string])[] = [
    ['title', webSafe(title, language)],
    ['file name', wordsOfFileName(fileName).join('-')],
    ['words', webSafe(words.slice(0, SUBJECT_WORDS).join(' '), language)],
    ['folder', webSafe(folder.split('/').at(-1) ?? '')],
  ];
  const [from, subject] = offers.find(([, offered]) => offered !== '') ?? (['kind', kind] as const);
  return { subject, from };
}

/** The stem that a pattern gives a piece. Parts without a fact are left out. */
export function nameByPattern(pattern: readonly NamePart[], facts: NameFacts): string {
  const { subject } = subjectOf(facts);
  const parts = pattern.map((part) => partOf(part, facts, subject)).filter(Boolean);
  return goodStem(withoutRepeats(parts).join('-'), facts.kind);
}

function partOf(part: NamePart, facts: NameFacts, subject: string): string {
  switch (part.part) {
    case 'subject':
      return subject;
    case 'place':
      return webSafe(facts.place, facts.language);
    case 'maker':
      return webSafe(facts.maker.split(/\s+/).at(-1) ?? '', facts.language);
    case 'date':
      return webSafe(facts.taken.slice(0, 10));
    case 'number':
      return facts.number ?? '';
    case 'word':
      return webSafe(part.word);
  }
}

/** A part whose words already stand in an earlier one says nothing new; a number tells pieces apart all the same. */
function withoutRepeats(parts: readonly string[]): readonly string[] {
  return parts.filter(
    (part, at) =>
      /^\d+$/.test(part) || !parts.slice(0, at).some((earlier) => `-${earlier}-`.includes(`-${part}-`)),
  );
}

/** The pattern as words, "subject-place-date", as House rules shows it. */
export function sayPattern(pattern: readonly NamePart[]): string {
  return pattern.map((part) => (part.part === 'word' ? `“${part.word}”` : part.part)).join('-');
}
