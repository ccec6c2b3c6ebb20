import { messagesFor } from '../../../messages/messages.ts';
import type { Found } from '../../../proof/finding.ts';
import { escapeHtml } from '../../escape.ts';
import { shownSize } from '../../picture.ts';
import type { Room } from '../../room.ts';
import type { BlockKind, RoomContext } from '../kind.ts';
import { isPlacedBlock } from '../placement/schema.ts';
import { readPair } from './read.ts';
import type { BeforeAfter } from './schema.ts';
import { isSameShape, shapeNear } from './shapes.ts';

/** Each as wide as the pair: without the script one stands below the other. */
const roomInside = (room: Room): Room => ({ ...room, sort: 'filled' });

/** Two that are not of one shape do not lie over each other; a third has no side of the divider. */
function misfits(block: BeforeAfter, pieces: RoomContext['pieces']): readonly Found[] {
  const place = { kind: 'block', blockId: block.attrs.id } as const;
  if (block.content.length !== 2)
    return [{ code: 'pair-broken', values: { pictures: block.content.length }, place, remedies: [] }];
  const [before, after] = block.content.map(({ attrs }) => {
    const piece = pieces.get(attrs.asset);
    return piece ? shownSize(attrs, piece) : null;
  });
  if (!before || !after) return [];
  if (isSameShape(before, after)) return [];
  const placementId = block.content[1]?.attrs.id ?? '';
  const change = { ratio: shapeNear(before.width / before.height) };
  return [
    {
      code: 'pair-shapes',
      values: {},
      place,
      remedies: [{ kind: 'placement', does: 'shape-of-first', placementId, change }],
    },
  ];
}

/** Two figures (HTML, `figure`), which the page's script lays over each other with a divider (`on-page.ts`). */
export const beforeAfter: BlockKind<BeforeAfter> = {
  write: (block, context) => {
    const inner = context.inside(block.content, roomInside(context.room));
    if (inner === '') return '';
    // The words for its divider are those of the page's language when it goes out.
    if (context.isSource)
      return `<div class="before-after" style="--at:${block.attrs.divider}%">\n${inner}\n</div>`;
    const { divider } = messagesFor(context.rules.language);
    const isPair =
      block.content.every(({ attrs }) => context.pieces.has(attrs.asset)) && block.content.length === 2;
    if (context.isInline || !isPair) return `<div>\n${inner}\n</div>`;
    return `<div class="before-after" style="--at:${block.attrs.divider}%" data-divider="${escapeHtml(divider)}">\n${inner}\n</div>`;
  },
  words: () => [],
  findings: (block, _room, { pieces }) => misfits(block, pieces),
  style: () => `.placard .before-after { clear: both; margin: 12px 0 22px; }
.before-after > input { display: none; }
@media screen and (scripting: enabled) {
  .placard .before-after { display: grid; grid-template: auto auto / minmax(0, 1fr); }
  .before-after > .placed { display: grid; grid-area: 1 / 1 / 3 / 2; grid-template: subgrid / minmax(0, 1fr); }
  .before-after > .placed > :not(figcaption) { grid-row: 1; }
  .before-after > .placed > figcaption { grid-row: 2; width: calc(50% - 10px); }
  .before-after > .placed + .placed { pointer-events: none; }
  .before-after > .placed + .placed > * { pointer-events: auto; }
  .before-after > .placed + .placed > :not(figcaption) { clip-path: inset(0 0 0 var(--at)); }
  .before-after > .placed + .placed > figcaption { margin-left: calc(50% + 10px); }
  .before-after > input { display: block; grid-area: 1 / 1 / 2 / 2; z-index: 1; width: 100%; height: 100%; margin: 0; opacity: 0; cursor: ew-resize; touch-action: pan-y; }
  .before-after::after { content: "\\2194"; grid-area: 1 / 1 / 2 / 2; align-self: stretch; position: relative; left: var(--at); width: 40px; margin-left: -20px; display: grid; place-items: center; font: 600 20px/40px sans-serif; color: #172126; background: radial-gradient(circle, #ffffff 0 19px, #172126 19px 20px, #0000 20px), linear-gradient(90deg, #0000 17px, #172126 17px 18px, #ffffff 18px 22px, #172126 22px 23px, #0000 23px); pointer-events: none; }
  .before-after:has(> input:focus-visible) { outline: 3px solid #172126; outline-offset: 2px; }
}`,
  reads: { 'div.before-after': readPair },
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isPlacedBlock) }),
    room: roomInside,
  },
};
