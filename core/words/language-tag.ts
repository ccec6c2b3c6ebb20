import * as v from 'valibot';

/** A language as it is written in HTML's `lang`: a primary subtag with a region or script after it (BCP 47). */
export const LanguageTagSchema = v.pipe(
  v.string(),
  v.regex(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, 'A language is written as en or en-GB.'),
);

export const isLanguageTag = (text: string): boolean => v.is(LanguageTagSchema, text);

/** The language of a tag without its region: `de` of `de-AT`. */
export function primaryOf(tag: string): string {
  return tag.toLowerCase().split('-')[0] ?? '';
}
