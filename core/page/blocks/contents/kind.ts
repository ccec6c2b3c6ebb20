import { messagesFor } from '../../../messages/messages.ts';
import { escapeHtml } from '../../escape.ts';
import { attribute, elementsIn, type HtmlElement, hasClass } from '../../html-tree.ts';
import { readBlock } from '../../read-block.ts';
import type { ReadElement } from '../../reading.ts';
import type { BlockKind } from '../kind.ts';
import { type Entry, entriesOf } from './entries.ts';
import type { Contents } from './schema.ts';

function writeList(entries: readonly Entry[]): string {
  const items = entries.map(({ heading, under }) => {
    const link = `<a href="#${escapeHtml(heading.anchor)}">${escapeHtml(heading.words)}</a>`;
    return `<li>${link}${under.length > 0 ? `\n${writeList(under)}\n` : ''}</li>`;
  });
  return `<ul>\n${items.join('\n')}\n</ul>`;
}

const readContents: ReadElement = (node, flow, reader, marks) => {
  const deepest = ([4, 3, 2] as const).find((level) => hasClass(node, `to-${level}`));
  // A list of places on another page is a list: here it would be one of this page's.
  if (deepest === undefined || !leadsHere(node)) readBlock(node, flow, reader, marks);
  else flow.putBlock({ type: 'contents', attrs: { id: reader.newId(), deepest } });
};

const leadsHere = (node: HtmlElement) =>
  [...elementsIn(node)].every(
    ({ name, ...link }) => name !== 'a' || attribute({ name, ...link }, 'href').startsWith('#'),
  );

/** A list of the headings of the page (HTML, `nav`, which screen readers find among the places of a page). */
export const contents: BlockKind<Contents> = {
  write: ({ attrs: { deepest } }, { headings, rules, isInline, isSource }) => {
    // What it lists is made of the headings when the page goes out.
    const entries = isSource ? [] : entriesOf(headings, deepest);
    const style = isInline ? ' style="margin:0 0 18px"' : '';
    const said = escapeHtml(messagesFor(rules.language).contents);
    const list = entries.length === 0 ? '' : `\n${writeList(entries)}\n`;
    return `<nav class="contents to-${deepest}" aria-label="${said}"${style}>${list}</nav>`;
  },
  words: () => [],
  findings: ({ attrs: { id, deepest } }, _room, { headings }) =>
    entriesOf(headings, deepest).length === 0
      ? [
          {
            code: 'contents-empty',
            values: {},
            place: { kind: 'block', blockId: id },
            remedies: [{ kind: 'remove-block', blockId: id }],
          },
        ]
      : [],
  style:
    () => `.placard .contents { clear: both; margin: 0 0 22px; padding: 2px 0 2px 14px; border-left: 4px solid #c9d2d6; }
.placard .contents ul { margin: 0; padding: 0; list-style: none; }
.placard .contents ul ul { padding-left: 1.2em; }`,
  reads: { 'nav.contents': readContents },
};
