import * as v from 'valibot';
import { wordsOfFileName } from './gibberish.ts';
import { goodStem, webSafe } from './names.ts';

/** The parts a house pattern is made of, in the order they are offered. */
export const NAME_PARTS = ['subject', 'place', 'maker', 'date', 'word'] as const;

/** One part of a house pattern; `word` is a fixed word. Sizes belong to a cut's name, never to a piece's. */
const NamePartSchema = v.variant('part', [
  v.strictObject({ part: v.picklist(['subject', 'place', 'maker', 'date']) }),
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
  /** Put in front when nothing else is left, such as "picture". */
  readonly kind: string;
}

/**
 * The stem that the house pattern gives a piece. Parts without a fact are left out; the subject comes from the
 * title, else from the words a person wrote in the file name, else from the kind.
 */
export function nameByPattern(pattern: readonly NamePart[], facts: NameFacts): string {
  const subject = webSafe(facts.title) || wordsOfFileName(facts.fileName).join('-') || facts.kind;
  const parts = pattern.map((part) => partOf(part, facts, subject)).filter(Boolean);
  return goodStem(withoutRepeats(parts).join('-'), facts.kind);
}

function partOf(part: NamePart, facts: NameFacts, subject: string): string {
  switch (part.part) {
    case 'subject':
      return subject;
    case 'place':
      return webSafe(facts.place);
    case 'maker':
      return webSafe(facts.maker.split(/\s+/).at(-1) ?? '');
    case 'date':
      return webSafe(facts.taken.slice(0, 10));
    case 'word':
      return webSafe(part.word);
  }
}

/** A part whose words already stand in an earlier one says nothing new. */
function withoutRepeats(parts: readonly string[]): readonly string[] {
  return parts.filter(
    (part, at) => !parts.slice(0, at).some((earlier) => `-${earlier}-`.includes(`-${part}-`)),
  );
}

/** The pattern as words, "subject-place-date", as House rules shows it. */
export function sayPattern(pattern: readonly NamePart[]): string {
  return pattern.map((part) => (part.part === 'word' ? `“${part.word}”` : part.part)).join('-');
}
