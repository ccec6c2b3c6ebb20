import type { Label } from '../rights/label.ts';
import { wordsOfFileName } from './gibberish.ts';
import { goodStem, webSafe } from './names.ts';
import type { NamePart } from './parts.ts';

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
    ['file name', wordsOfFileName(fileName, language).join('-')],
    ['words', webSafe(words.slice(0, SUBJECT_WORDS).join(' '), language)],
    ['folder', webSafe(folder.split('/').at(-1) ?? '', language)],
  ];
  const [from, subject] = offers.find(([, offered]) => offered !== '') ?? (['kind', kind] as const);
  return { subject, from };
}

/** What of a target decides how a piece is called: its house pattern, and the language of its pages. */
export interface NamingRules {
  readonly namePattern: readonly NamePart[];
  /** BCP 47. */
  readonly language: string;
}

/** What a piece says of itself that a name can be made from. */
export function nameFactsOf(piece: {
  readonly label: Pick<Label, 'title' | 'place' | 'creator' | 'dateCreated' | 'keywords'>;
  readonly folder: string;
  readonly originalName: string;
}): Omit<NameFacts, 'language'> {
  const { title, place, creator: maker, dateCreated: taken, keywords: words } = piece.label;
  return {
    title,
    place,
    maker,
    taken,
    words,
    folder: piece.folder,
    fileName: piece.originalName,
    kind: 'picture',
  };
}

/** What a piece is called on a target: the one way, for what comes in, for the label's offer and for runs. */
export function nameFor({ namePattern, language }: NamingRules, facts: Omit<NameFacts, 'language'>): string {
  return nameByPattern(namePattern, { ...facts, language });
}

/** The stem that a pattern gives a piece. Parts without a fact are left out. */
export function nameByPattern(pattern: readonly NamePart[], facts: NameFacts): string {
  const { subject } = subjectOf(facts);
  const parts = pattern.map((part) => partOf(part, facts, subject)).filter(Boolean);
  return goodStem(withoutRepeats(parts).join('-'), facts.kind, facts.language);
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
      return webSafe(part.word, facts.language);
  }
}

/** A part whose words already stand in an earlier one says nothing new; a number tells pieces apart all the same. */
function withoutRepeats(parts: readonly string[]): readonly string[] {
  return parts.filter(
    (part, at) =>
      /^\d+$/.test(part) || !parts.slice(0, at).some((earlier) => `-${earlier}-`.includes(`-${part}-`)),
  );
}
