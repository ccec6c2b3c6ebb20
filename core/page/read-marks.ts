import { attribute, type HtmlElement } from './html-tree.ts';
import { isLinkAddress, type Mark } from './inline.ts';
import type { Marks } from './reading.ts';

const BOLD = new Set(['b', 'strong']);
const ITALIC = new Set(['i', 'em', 'cite', 'dfn', 'var']);

export function withMark(marks: Marks, mark: Mark): Marks {
  return marks.some(({ type }) => type === mark.type) ? marks : [...marks, mark];
}

/** The marks of what is in an element: by what it means, or by its style, as writing programs say it. */
export function marksOf(node: HtmlElement, around: Marks): Marks {
  const style = attribute(node, 'style').slice(0, 2000);
  const weight = /font-weight\s{0,9}:\s{0,9}(\w{1,9})/i.exec(style)?.[1]?.toLowerCase();
  const isBold = weight ? /^(?:bold|bolder|[6-9]00)$/.test(weight) : BOLD.has(node.name);
  const slant = /font-style\s{0,9}:\s{0,9}(\w{1,9})/i.exec(style)?.[1]?.toLowerCase();
  const isItalic = slant ? slant !== 'normal' : ITALIC.has(node.name);
  const href = node.name === 'a' ? attribute(node, 'href').trim() : '';
  let marks = around;
  if (href !== '' && isLinkAddress(href)) marks = withMark(marks, { type: 'link', attrs: { href } });
  if (isBold) marks = withMark(marks, { type: 'bold' });
  return isItalic ? withMark(marks, { type: 'italic' }) : marks;
}
