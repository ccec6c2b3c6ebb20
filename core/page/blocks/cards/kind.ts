import type { Found } from '../../../proof/finding.ts';
import { type Room, sharedRoom } from '../../room.ts';
import type { BlockKind, RoomContext } from '../kind.ts';
import { withWholeLink } from '../whole-link.ts';
import { readCards } from './read.ts';
import { CARDS_PER_ROW, type Card, type Cards, cardsStackBelow, isLastAlone, isOnCard } from './schema.ts';

const INLINE_ROW = 'clear:both;list-style:none;padding:0;margin:12px 0 22px;display:flex;flex-wrap:wrap';

function roomInside(
  room: Room,
  { attrs: { perRow, gap } }: Cards,
  { rules }: Pick<RoomContext, 'rules'>,
): Room {
  const shared = sharedRoom(room, { from: cardsStackBelow(perRow, rules), count: perRow, gap });
  return { ...shared, isCard: true };
}

/** Cards in a row (HTML, `ul`, so that screen readers say how many there are), one below the other on a phone. */
export const cards: BlockKind<Cards> = {
  write: (block, context) => {
    const { perRow, gap } = block.attrs;
    const inner = context.inside(block.content, roomInside(context.room, block, context));
    if (inner === '') return '';
    const style = context.isInline ? `${INLINE_ROW};gap:${gap}px` : `--gap:${gap}px`;
    return `<ul class="cards in-${perRow}" style="${style}">\n${inner}\n</ul>`;
  },
  words: () => [],
  findings: (block): readonly Found[] =>
    isLastAlone(block)
      ? [
          {
            code: 'card-alone',
            values: { cards: block.content.length, perRow: block.attrs.perRow },
            place: { kind: 'block', blockId: block.attrs.id },
            remedies: [],
          },
        ]
      : [],
  style: (
    rules,
  ) => `.placard .cards { display: grid; clear: both; gap: var(--gap); margin: 12px 0 22px; padding: 0; list-style: none; }
.cards.in-2 { grid-template-columns: repeat(2, minmax(0, 1fr)); }
.cards.in-3 { grid-template-columns: repeat(3, minmax(0, 1fr)); }
.cards.in-4 { grid-template-columns: repeat(4, minmax(0, 1fr)); }
.placard .card { position: relative; min-width: 0; margin: 0; font-size: 0.92em; }
.card > .placed { margin-top: 0; margin-bottom: 12px; }
.card > :is(h2, h3, h4) { margin: 0 0 0.3em; }
.card > :last-child { margin-bottom: 0; }
.card.linked > :is(h2, h3, h4) > a::after, .card.linked:not(:has(> :is(h2, h3, h4))) > p:first-of-type > a::after { content: ""; position: absolute; inset: 0; }
.card.linked .placed > figcaption { position: relative; z-index: 1; width: fit-content; }
.card.linked:focus-within { outline: 2px solid currentColor; outline-offset: 4px; }
${CARDS_PER_ROW.map((perRow) => `@container placard (width < ${cardsStackBelow(perRow, rules)}px) { .cards.in-${perRow} { grid-template-columns: minmax(0, 1fr); } }`).join('\n')}
@media print { .card { break-inside: avoid; } }`,
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({
      ...block,
      content: blocks.filter((one): one is Card => one.type === 'card'),
    }),
    room: roomInside,
  },
  reads: { 'ul.cards': readCards },
};

/** One of them. Where it leads somewhere, its heading is the link, and the whole card a place to press. */
export const card: BlockKind<Card> = {
  write: ({ attrs: { link }, content }, context) => {
    const named = link === '' ? content : withWholeLink(content, link);
    const inner = context.inside(named, context.room);
    if (inner === '') return '';
    const isLinked = link !== '' && named !== content;
    const style = context.isInline ? ' style="flex:1 1 200px;margin:0"' : '';
    return `<li class="card${isLinked ? ' linked' : ''}"${style}>\n${inner}\n</li>`;
  },
  words: () => [],
  findings: ({ attrs: { id, link }, content }) =>
    link !== '' && withWholeLink(content, link) === content
      ? [{ code: 'card-unnamed', values: { link }, place: { kind: 'block', blockId: id }, remedies: [] }]
      : [],
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isOnCard) }),
    room: (room) => room,
  },
};
