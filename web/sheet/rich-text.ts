import { escapeHtml } from '#core/page/escape.ts';
import { type HtmlElement, type HtmlNode, TREE_DEPTH } from '#core/page/html-tree.ts';
import type { LeftOut } from '#core/page/left-out.ts';
import { readBrought } from '#core/page/read-brought.ts';
import type { ReadPart } from '#core/page/reading.ts';
import type { HouseRules } from '#core/page/target.ts';
import { writeText } from '#core/page/write.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { asLine } from './embed-paste.ts';

/** The name of the block that offers a picture. It is the sheet's alone: no page that is kept has one. */
export const PICTURE_OFFER = 'pictureOffer';

/** The attribute under which an offered picture stands in HTML on its way into the editor. */
export const OFFER_ATTRIBUTE = 'data-picture-offer';

/** Rich text as the sheet takes it, and what it cannot take as it is. */
export interface SheetText {
  /** Text of the page model, and an offer to take it in where each picture stood. */
  readonly html: string;
  /** Code of what was framed or played in it, in order; each stands in the text as a line of its own. */
  readonly embeds: readonly string[];
  /** What did not come along as it was. */
  readonly leftOut: readonly LeftOut[];
}

/** Reads rich text that was brought from elsewhere. What was copied from a sheet is told by `isOfSheet`, and left as it is. */
export function readRichText(html: string, rules: HouseRules): SheetText {
  const document = new DOMParser().parseFromString(html, 'text/html');
  const css = [...document.querySelectorAll('style')].map((sheet) => sheet.textContent).join('\n');
  const { children } = treeOf(document.body, rules.language);
  const { parts, leftOut } = readBrought(children, css, () => crypto.randomUUID());
  return {
    html: parts.map((part) => writePart(part, rules)).join(''),
    embeds: parts.flatMap((part) => (part.kind === 'embed' ? [part.code] : [])),
    leftOut,
  };
}

/** What a sheet never puts on the clipboard, or marks as its own. */
const OF_OTHERS =
  /<(?:(?:img|picture|iframe|video|audio|object|embed|pre|hr|h1)\b|blockquote(?! data-of-sheet)|t[dh]\b(?![^>]{0,200}data-of-sheet))/i;

/**
 * Whether HTML may be what the editor of a sheet put on the clipboard, which it reads back by itself. Other editors mark
 * theirs in the same way, and hold what a sheet does not.
 */
export function isOfSheet(html: string): boolean {
  return html.includes('data-pm-slice') && !OF_OTHERS.test(html);
}

function writePart(part: ReadPart, rules: HouseRules): string {
  switch (part.kind) {
    case 'block':
      return writeText(part.block, rules);
    case 'picture':
      return `<div ${OFFER_ATTRIBUTE}="${escapeHtml(JSON.stringify(part.offered))}"></div>`;
    // Stands there as text until it becomes the embed (`takeRichText`).
    case 'embed':
      return `<p>${escapeHtml(asLine(part.code))}</p>`;
  }
}

interface Making extends HtmlElement {
  readonly children: HtmlNode[];
}

/** An element without the language that it is in where that is the page's own: writing programs say it of every word. */
const making = ({ localName, attributes }: Element, language: string): Making => ({
  name: localName,
  attributes: [...attributes]
    .map(({ name, value }) => ({ name, value }))
    .filter(({ name, value }) => name !== 'lang' || primaryOf(value) !== primaryOf(language)),
  children: [],
});

/** The browser's tree as `core` reads it, made without recursion: what is deeper than it reads hangs in the last that is not. */
function treeOf(root: Element, language: string): HtmlElement {
  const made = making(root, language);
  const waiting: { readonly node: Element; readonly into: Making; readonly depth: number }[] = [
    { node: root, into: made, depth: 1 },
  ];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { into, depth } = next;
    for (const child of next.node.childNodes) {
      if (child instanceof Text) into.children.push(child.data);
      else if (child instanceof Element) {
        const isDeep = depth >= TREE_DEPTH;
        const element = isDeep ? into : making(child, language);
        if (!isDeep) into.children.push(element);
        waiting.push({ node: child, into: element, depth: isDeep ? depth : depth + 1 });
      }
    }
  }
  return made;
}
