import * as v from 'valibot';

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

/** The pattern as words, "subject-place-date", as House rules shows it. */
export function sayPattern(pattern: readonly NamePart[]): string {
  return pattern.map((part) => (part.part === 'word' ? `“${part.word}”` : part.part)).join('-');
}
