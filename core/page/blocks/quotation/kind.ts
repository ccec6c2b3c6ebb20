import { escapeHtml } from '../../escape.ts';
import { LABEL_FACES } from '../../faces.ts';
import { narrowedRoom, type Room } from '../../room.ts';
import type { Block } from '../block.ts';
import type { BlockKind } from '../kind.ts';
import { readFigure, readQuotation } from './read.ts';
import { isQuoted, type Quotation } from './schema.ts';

/** Width in px of the line beside a quotation, and of the space between that and its words. */
const RULE_PX = 3;
const INDENT_PX = 20;

const INLINE_QUOTED = `margin:0 0 1em;padding-left:${INDENT_PX}px;border-left:${RULE_PX}px solid`;
const INLINE_ATTRIBUTION = 'font-size:14px;line-height:1.4';

const inside = {
  of: ({ content }: Quotation): readonly Block[] => content,
  with: (block: Quotation, blocks: readonly Block[]): Quotation => ({
    ...block,
    content: blocks.filter(isQuoted),
  }),
  room: (room: Room) => narrowedRoom(room, RULE_PX + INDENT_PX),
};

/** Words of somebody else (HTML, `blockquote`); whose they are stands outside it, in the caption of a figure. */
export const quotation: BlockKind<Quotation> = {
  write: ({ attrs: { attribution, cite }, content }, context) => {
    const inner = context.inside(content, inside.room(context.room));
    if (inner === '') return '';
    const style = (said: string) => (context.isInline ? ` style="${said}"` : '');
    const address = cite === '' ? '' : ` cite="${escapeHtml(cite)}"`;
    const quote = (its: string) => `<blockquote${its}${address}>\n${inner}\n</blockquote>`;
    if (attribution === '') return quote(` class="quoted"${style(INLINE_QUOTED)}`);
    const name = escapeHtml(attribution);
    const linked = cite === '' ? name : `<a href="${escapeHtml(cite)}">${name}</a>`;
    return `<figure class="quoted"${style(INLINE_QUOTED)}>\n${quote(style('margin:0'))}\n<figcaption${style(INLINE_ATTRIBUTION)}>${linked}</figcaption>\n</figure>`;
  },
  words: ({ attrs: { attribution } }) => (attribution === '' ? [] : [[{ type: 'text', text: attribution }]]),
  findings: ({ attrs: { id, attribution }, content }) =>
    attribution === '' && content.length > 0
      ? [
          {
            code: 'quotation-unattributed',
            values: {},
            place: { kind: 'block', blockId: id },
            remedies: [],
          },
        ]
      : [],
  // Narrower beside a picture as text is; only one that holds pictures itself stands clear of it.
  style:
    () => `.quoted { display: flow-root; margin: 1.2em 0; padding-left: ${INDENT_PX}px; border-left: ${RULE_PX}px solid #9aa8ae; }
.quoted blockquote { display: flow-root; margin: 0; }
.quoted:has(.placed) { clear: both; }
.quoted p:last-child { margin-bottom: 0; }
.quoted > figcaption { font: 14px/1.4 ${LABEL_FACES}; color: #55636a; padding-top: 6px; }
.quoted > figcaption a { color: inherit; }`,
  inside,
  reads: { blockquote: readQuotation, figure: readFigure },
};
