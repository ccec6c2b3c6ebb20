import { messagesFor } from '../../../messages/messages.ts';
import { escapeHtml } from '../../escape.ts';
import { textOf } from '../../html-tree.ts';
import { narrowedRoom, type Room } from '../../room.ts';
import { isFlowBlock } from '../flow-block.ts';
import type { BlockKind } from '../kind.ts';
import { readFlowBlocks, readLine } from '../read-flow-blocks.ts';
import type { Details } from './schema.ts';

/** Width in px of the space beside what is folded away. */
const INDENT_PX = 20;

const INLINE_FOLDED = 'clear:both;margin:0 0 1em';

const roomInside = (room: Room) => narrowedRoom(room, INDENT_PX);

/** A part of the page that readers open themselves (HTML, `details`); it works by keyboard and without script. */
export const details: BlockKind<Details> = {
  write: ({ attrs: { summary }, content }, context) => {
    const inner = context.inside(content, roomInside(context.room));
    if (inner === '') return '';
    // What stands there where nobody said more is written when the page goes out.
    const more = context.isSource ? '' : messagesFor(context.rules.language).more;
    const said = escapeHtml(summary || more);
    const style = context.isInline ? ` style="${INLINE_FOLDED}"` : '';
    return `<details class="folded"${style}>\n<summary>${said}</summary>\n${inner}\n</details>`;
  },
  words: ({ attrs: { summary } }) => (summary === '' ? [] : [[{ type: 'text', text: summary }]]),
  findings: ({ attrs: { id, summary }, content }) =>
    summary === '' && content.length > 0
      ? [{ code: 'details-unnamed', values: {}, place: { kind: 'block', blockId: id }, remedies: [] }]
      : [],
  style: () => `.folded { display: flow-root; clear: both; margin: 0 0 1em; padding-left: ${INDENT_PX}px; }
.folded > summary { margin-left: -${INDENT_PX}px; padding: 2px 0 6px; font-weight: 600; cursor: pointer; }
.folded > :last-child { margin-bottom: 0; }
@media print { .folded::details-content { content-visibility: visible; display: block; } }`,
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isFlowBlock) }),
    room: roomInside,
  },
  reads: {
    details: (node, flow, reader) => {
      const summary = node.children.find((child) => typeof child !== 'string' && child.name === 'summary');
      const rest = node.children.filter((child) => child !== summary);
      const { content, after } = readFlowBlocks(rest, reader);
      const { line: said, rest: more } = readLine(summary ? textOf(summary) : '', reader);
      if (content.length > 0)
        flow.putBlock({
          type: 'details',
          attrs: { id: reader.newId(), summary: said },
          content: [...more, ...content],
        });
      else if (said !== '') {
        flow.endParagraph();
        flow.text(summary ? textOf(summary) : '', []);
        flow.endParagraph();
      }
      for (const part of after) flow.put(part);
    },
  },
};
