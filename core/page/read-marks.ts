import * as v from 'valibot';
import { LanguageTagSchema } from '../words/language-tag.ts';
import { declaredIn } from './declared.ts';
import { attribute, type HtmlElement, hasClass } from './html-tree.ts';
import { FullWordsSchema, isLinkAddress, type Mark } from './inline.ts';
import type { Marks } from './reading.ts';

const BOLD = new Set(['b', 'strong']);
const ITALIC = new Set(['i', 'em', 'cite', 'dfn', 'var']);

const PLAIN: Readonly<Record<string, Mark['type'] & ('superscript' | 'subscript' | 'small' | 'code')>> = {
  sup: 'superscript',
  sub: 'subscript',
  small: 'small',
  code: 'code',
  kbd: 'code',
  samp: 'code',
  tt: 'code',
};
/** What words are in for their language alone. Whole blocks have theirs by what the writing program was set to. */
const SPOKEN = new Set(['span', 'i', 'em', 'q', 'cite', 'bdi', 'dfn', 'b', 'strong', 'abbr']);

export function withMark(marks: Marks, mark: Mark): Marks {
  return marks.some(({ type }) => type === mark.type) ? marks : [...marks, mark];
}

/** The marks of what is in an element: by what it means, or by its style, as writing programs say it. */
export function marksOf(node: HtmlElement, around: Marks): Marks {
  const declared = declaredIn(node);
  const weight = declared.get('font-weight')?.toLowerCase();
  const isBold = weight ? /^(?:bold|bolder|[6-9]00)$/.test(weight) : BOLD.has(node.name);
  const slant = declared.get('font-style')?.toLowerCase();
  const isItalic = slant ? slant !== 'normal' : ITALIC.has(node.name);
  const href = node.name === 'a' ? attribute(node, 'href').trim() : '';
  let marks = around;
  if (href !== '' && !isOwnMark(href) && isLinkAddress(href))
    marks = withMark(marks, { type: 'link', attrs: linkIn(node, href) });
  if (isBold) marks = withMark(marks, { type: 'bold' });
  if (isItalic) marks = withMark(marks, { type: 'italic' });
  return withMeaning(node, declared, marks);
}

/** Places that writing programs mark for notes and contents of their own; no anchor of a page begins so. */
const isOwnMark = (href: string): boolean => href.startsWith('#_');

/** Where a link leads. That it opens a new window is taken over where it is said, and not from what every link of a mail does. */
function linkIn(node: HtmlElement, href: string) {
  const isSaid =
    attribute(node, 'target') === '_blank' &&
    node.children.some((child) => typeof child !== 'string' && isSaidByLink(child));
  return isSaid ? ({ href, newWindow: true } as const) : { href };
}

/** What a link says of itself when it goes out (`write-inline.ts`), which is no word of the page. */
export function isSaidByLink(node: HtmlElement): boolean {
  return node.name === 'span' && hasClass(node, 'link-says');
}

/** The marks that say what words are, or how they are spoken (WHATWG HTML, 4.5; CSS 2.2, vertical-align). */
function withMeaning(node: HtmlElement, declared: ReadonlyMap<string, string>, around: Marks): Marks {
  let marks = around;
  const raised = /^(super|sub)\b/i.exec(declared.get('vertical-align') ?? '')?.[1]?.toLowerCase();
  if (raised) marks = withMark(marks, { type: raised === 'super' ? 'superscript' : 'subscript' });
  const plain = PLAIN[node.name];
  if (plain) marks = withMark(marks, { type: plain });
  const title = node.name === 'abbr' ? v.safeParse(FullWordsSchema, attribute(node, 'title')) : null;
  if (title?.success) marks = withMark(marks, { type: 'abbreviation', attrs: { title: title.output } });
  const lang = SPOKEN.has(node.name) ? v.safeParse(LanguageTagSchema, attribute(node, 'lang')) : null;
  return lang?.success ? withMark(marks, { type: 'language', attrs: { lang: lang.output } }) : marks;
}
