import { withHeadRows } from './head-rows.ts';
import { headingsByLook } from './headings-by-look.ts';
import type { HtmlElement, HtmlNode } from './html-tree.ts';
import { commonLook, seenWords } from './look.ts';
import { lostStyles } from './lost-style.ts';
import { type HtmlReading, readSeen } from './read-html.ts';
import { withoutHidden } from './silent.ts';
import { styleRules, withRules } from './style-rules.ts';
import { withTypedBreaks } from './typed-breaks.ts';
import { withLinesApart } from './typed-lines.ts';
import { withTypedLists } from './typed-lists.ts';

/**
 * Reads HTML that another program wrote (`read-html.ts`), by how it looks where its elements mean nothing: what its style sheets
 * say of classes counts as said on the words, paragraphs drawn as entries become lists, bold lines larger than the text and bold
 * first rows become headings. What looked otherwise than most of the text is among what was left out. `css` is the text of its style sheets.
 * Linear in both.
 */
export function readBrought(nodes: readonly HtmlNode[], css: string, newId: () => string): BroughtReading {
  return readStyled(withRules(nodes, styleRules(css)), newId);
}

export interface BroughtReading extends HtmlReading {
  /** The elements that became headings though they are none. */
  readonly byLook: readonly HtmlElement[];
}

/** The same for nodes that carry what their style sheets say of them in their own style. */
export function readStyled(nodes: readonly HtmlNode[], newId: () => string): BroughtReading {
  const seenNodes = withoutHidden(nodes);
  const tree = withHeadRows(withTypedLists(withLinesApart(withTypedBreaks(seenNodes))));
  const seen = seenWords(tree);
  const common = commonLook(seen);
  const headings = headingsByLook(seen, common);
  const { parts, leftOut } = readSeen(tree, newId, headings);
  const lost = lostStyles(seen, common, headings).map(
    ({ words, styles }) => ({ code: 'style', after: '', words, styles }) as const,
  );
  return { parts, leftOut: [...leftOut, ...lost], byLook: [...headings.keys()] };
}
