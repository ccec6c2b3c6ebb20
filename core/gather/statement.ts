import * as v from 'valibot';

/** Where something is said of a picture, nearest to its maker first: later places give way to earlier ones. */
export const SAID_BY = [
  'agency',
  'collection',
  'json-ld',
  'rdfa',
  'caption',
  'link',
  'open-graph',
  'page',
  'file',
  'drive',
] as const;
export type SaidBy = (typeof SAID_BY)[number];

/** What a statement is about. `licence` is an address or words; `price` and `terms` are an agency's offer. */
const SAID_ABOUT = [
  'title',
  'maker',
  'maker-address',
  'licence',
  // Of the whole page, which does not say whether it is the picture's.
  'page-licence',
  'notice',
  'credit',
  'source',
  'source-id',
  'caption',
  'alt',
  'taken',
  'place',
  'words',
  'price',
  'terms',
] as const;
export type SaidAbout = (typeof SAID_ABOUT)[number];

/** One thing that one place says of a picture, as it was given there. */
const StatementSchema = v.strictObject({
  by: v.picklist(SAID_BY),
  about: v.picklist(SAID_ABOUT),
  value: v.pipe(v.string(), v.maxLength(2000)),
});
export type Statement = v.InferOutput<typeof StatementSchema>;

export const StatementsSchema = v.pipe(v.array(StatementSchema), v.maxLength(200));

const VALUE_LIMIT = 2000;

/** A statement of text from outside: control characters go, white space is folded. Null when nothing is left. */
export function maybeStatement(by: SaidBy, about: SaidAbout, value: unknown): Statement | null {
  if (typeof value !== 'string' && typeof value !== 'number') return null;
  // Blanks are folded away below, so that more is read than is kept.
  const text = String(value)
    .slice(0, VALUE_LIMIT * 5)
    .replace(/[\p{Cc}\p{Cf}]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, VALUE_LIMIT);
  return text === '' ? null : { by, about, value: text };
}

/** The statements that are not null, each once. */
export function statements(...all: readonly (Statement | null)[]): readonly Statement[] {
  const seen = new Set<string>();
  return all.filter((one): one is Statement => {
    if (!one) return false;
    const key = JSON.stringify([one.by, one.about, one.value]);
    return !seen.has(key) && seen.add(key) !== undefined;
  });
}

const PLACE_WORDS: Readonly<Record<SaidBy, string>> = {
  agency: 'The agency',
  collection: 'The collection',
  'json-ld': 'The page’s data about the picture',
  rdfa: 'A licence link beside the picture',
  caption: 'The caption',
  link: 'A licence link of the page, which names no picture,',
  'open-graph': 'The page’s preview data',
  page: 'The page',
  file: 'The file itself',
  drive: 'The drive',
};

export function saySaidBy(by: SaidBy): string {
  return PLACE_WORDS[by];
}
