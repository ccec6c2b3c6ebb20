import * as v from 'valibot';
import { isWebAddress } from '../rights/web-address.ts';
import { LanguageTagSchema } from '../words/language-tag.ts';

/** Where a link goes: a web address, an e-mail address, a telephone number (RFC 3966), a place on the same site or page, another page of Placard, or a file of its shelf (`page-address.ts`). */
export function isLinkAddress(address: string): boolean {
  if (/^(?:page|file):[A-Za-z0-9-]{1,64}$/.test(address)) return true;
  if (/^mailto:[^\s<>"]+@[^\s<>"]+$/i.test(address)) return true;
  if (/^tel:\+?[0-9][0-9().-]{1,30}$/i.test(address)) return true;
  if (/^[/#][^\s<>"\\]*$/.test(address)) return !address.startsWith('//');
  return isWebAddress(address);
}

export const LinkAddressSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(2000),
  v.check(isLinkAddress, 'A link begins with https://, http://, mailto:, tel:, / or #.'),
);

/** What an abbreviation stands for. */
export const FullWordsSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'Say what it stands for.'),
  v.maxLength(200),
);

/** What is said of words in a line (WHATWG HTML, 4.5), each at most once of the same words. */
export const MarkSchema = v.variant('type', [
  v.strictObject({ type: v.literal('bold') }),
  v.strictObject({ type: v.literal('italic') }),
  v.strictObject({ type: v.literal('superscript') }),
  v.strictObject({ type: v.literal('subscript') }),
  v.strictObject({ type: v.literal('small') }),
  v.strictObject({ type: v.literal('code') }),
  v.strictObject({ type: v.literal('abbreviation'), attrs: v.strictObject({ title: FullWordsSchema }) }),
  v.strictObject({ type: v.literal('language'), attrs: v.strictObject({ lang: LanguageTagSchema }) }),
  v.strictObject({
    type: v.literal('link'),
    attrs: v.strictObject({ href: LinkAddressSchema, newWindow: v.exactOptional(v.literal(true)) }),
  }),
]);
export type Mark = v.InferOutput<typeof MarkSchema>;

const InlineSchema = v.variant('type', [
  v.strictObject({
    type: v.literal('text'),
    text: v.pipe(v.string(), v.minLength(1)),
    marks: v.exactOptional(v.array(MarkSchema)),
  }),
  v.strictObject({ type: v.literal('hardBreak'), marks: v.exactOptional(v.array(MarkSchema)) }),
]);
export type Inline = v.InferOutput<typeof InlineSchema>;

/** Words in a line, with their marks; none for an empty block. */
export const InlinesSchema = v.exactOptional(v.array(InlineSchema));

/** The plain text of a run of inline content. */
export function plainText(content: readonly Inline[] | undefined): string {
  return (content ?? []).map((inline) => (inline.type === 'text' ? inline.text : ' ')).join('');
}

/**
 * Words in a line as readers get them: blanks that HTML folds into one are one (CSS Text 3, 4.1), and none, nor a broken line,
 * stands at the ends.
 */
export function folded(content: readonly Inline[] | undefined): Inline[] {
  const kept: Inline[] = [];
  for (const inline of content ?? []) {
    const last = kept.at(-1);
    if (inline.type === 'hardBreak') {
      if (last) kept.push(inline);
      continue;
    }
    const text = inline.text.replace(/[ \t\n\r\f]+/g, ' ');
    const isAtEdge = !last || last.type === 'hardBreak' || last.text.endsWith(' ');
    const said = isAtEdge ? text.replace(/^ /, '') : text;
    if (said !== '') kept.push(said === inline.text ? inline : { ...inline, text: said });
  }
  for (let last = kept.at(-1); last; last = kept.at(-1)) {
    if (last.type === 'text' && !last.text.endsWith(' ')) break;
    kept.pop();
    const text = last.type === 'text' ? last.text.slice(0, -1) : '';
    if (text === '') continue;
    kept.push({ ...last, type: 'text', text });
    break;
  }
  return kept;
}

/** Whether a run says nothing to a reader. */
export function isBlank(content: readonly Inline[] | undefined): boolean {
  return !content?.some((inline) => inline.type === 'text' && inline.text.trim() !== '');
}
