import { partRoom, type Room, WHOLE } from '../../room.ts';
import { isFlowBlock } from '../flow-block.ts';
import type { BlockKind, RoomContext } from '../kind.ts';
import { readColumns } from './read.ts';
import {
  COLUMN_COUNTS,
  type Column,
  type Columns,
  columnsStackBelow,
  sumOfShares,
  tracksOfShares,
} from './schema.ts';

function roomInside(
  room: Room,
  { attrs: { gap }, content }: Columns,
  { rules }: Pick<RoomContext, 'rules'>,
  at: number,
): Room {
  const share = (content[at]?.attrs.share ?? 0) / Math.max(1, sumOfShares(content));
  const wide = { share, gaps: gap * (content.length - 1) };
  return partRoom(room, { from: columnsStackBelow(content.length, rules), wide, narrow: WHOLE });
}

const INLINE_ROW = 'clear:both;display:flex;flex-wrap:wrap;margin:12px 0 22px';

/** Columns beside each other, one below the other on a phone. */
export const columns: BlockKind<Columns> = {
  write: (block, context) => {
    const { gap } = block.attrs;
    const lead = block.content.find(({ attrs }) => attrs.leads);
    const inner = block.content.map((column, at) =>
      context.inside(
        [{ ...column, attrs: { ...column.attrs, leads: column === lead } }],
        roomInside(context.room, block, context, at),
      ),
    );
    // A column that says nothing still holds the others where they are.
    if (inner.every((html) => html.endsWith('"></div>'))) return '';
    const style = context.isInline
      ? `${INLINE_ROW};gap:${gap}px`
      : `--gap:${gap}px;--shares:${tracksOfShares(block.content.map(({ attrs }) => attrs.share))}`;
    return `<div class="columns of-${block.content.length}" style="${style}">\n${inner.join('\n')}\n</div>`;
  },
  words: () => [],
  style: (
    rules,
  ) => `.placard .columns { display: grid; clear: both; gap: 0.75em var(--gap); grid-template-columns: var(--shares); margin: 12px 0 22px; }
.columns > .column { min-width: 0; display: flow-root; }
.placard .columns > .column > :first-child { margin-top: 0; }
.placard .columns > .column > :last-child { margin-bottom: 0; }
${COLUMN_COUNTS.map((count) => `@container placard (width < ${columnsStackBelow(count, rules)}px) { .placard .columns.of-${count} { grid-template-columns: minmax(0, 1fr); } .columns.of-${count} > .leads { order: -1; } }`).join('\n')}`,
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({
      ...block,
      content: blocks.filter((one): one is Column => one.type === 'column'),
    }),
    room: roomInside,
  },
  reads: { 'div.columns': readColumns },
};

/** One of them. */
export const column: BlockKind<Column> = {
  write: ({ attrs: { share, leads }, content }, context) => {
    const inner = context.inside(content, context.room);
    const style = context.isInline ? ` style="flex:${share} 1 0;min-width:200px"` : '';
    return `<div class="column${leads ? ' leads' : ''}"${style}>${inner === '' ? '' : `\n${inner}\n`}</div>`;
  },
  words: () => [],
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isFlowBlock) }),
    room: (room) => room,
  },
};
