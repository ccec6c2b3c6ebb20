import { escapeHtml } from '../../escape.ts';
import { LABEL_FACES } from '../../faces.ts';
import { INLINE_CAPTION } from '../../inline-style.ts';
import { partRoom, type Room, WHOLE } from '../../room.ts';
import type { BlockKind, RoomContext } from '../kind.ts';
import { isPlacedBlock } from '../placement/schema.ts';
import { readGallery } from './read.ts';
import { type GalleryParts, galleryParts, partStyle } from './rows.ts';
import { GALLERY_PER_ROW, type Gallery, galleryNarrowBelow } from './schema.ts';

/** Settled once for each gallery as it stands: each of its pictures asks. */
const settled = new WeakMap<
  Gallery,
  { readonly pieces: RoomContext['pieces']; readonly parts: GalleryParts }
>();

function partsOf(block: Gallery, pieces: RoomContext['pieces']): GalleryParts {
  const known = settled.get(block);
  if (known?.pieces === pieces) return known.parts;
  const parts = galleryParts(block, pieces);
  settled.set(block, { pieces, parts });
  return parts;
}

function partsAt(block: Gallery, pieces: RoomContext['pieces'], at: number) {
  const { wide, narrow } = partsOf(block, pieces);
  return { wide: wide[at] ?? WHOLE, narrow: narrow[at] ?? WHOLE };
}

function roomInside(room: Room, block: Gallery, { rules, pieces }: RoomContext, at: number): Room {
  const from = galleryNarrowBelow(block.attrs.perRow, rules);
  return { ...partRoom(room, { from, ...partsAt(block, pieces, at) }), sort: 'filled' };
}

const INLINE_ROW = 'display:flex;flex-wrap:wrap;align-items:flex-start;list-style:none;padding:0;margin:0';

/** Pictures in rows (HTML, `figure` round a `ul`, so that screen readers say how many there are), two in a row on a phone. */
export const gallery: BlockKind<Gallery> = {
  write: (block, context) => {
    const { perRow, gap, caption } = block.attrs;
    const items = block.content.flatMap((placed, at) => {
      const inner = context.inside([placed], roomInside(context.room, block, context, at));
      if (inner === '') return [];
      // How much of its row each fills is computed from the pieces when the page goes out.
      if (context.isSource) return [`<li>\n${inner}\n</li>`];
      const { wide, narrow } = partsAt(block, context.pieces, at);
      const style = context.isInline
        ? `flex:none;margin:0;width:calc((100% - ${wide.gaps}px)*${wide.share})`
        : partStyle({ wide, narrow });
      return [`<li style="${style}">\n${inner}\n</li>`];
    });
    if (items.length === 0) return '';
    const style = context.isInline ? 'clear:both;margin:12px 0 22px' : `--gap:${gap}px`;
    const row = context.isInline ? ` style="${INLINE_ROW};gap:${gap}px"` : '';
    const said = context.isInline ? ` style="${INLINE_CAPTION}"` : '';
    return [
      `<figure class="gallery in-${perRow}" style="${style}">`,
      `<ul${row}>`,
      ...items,
      '</ul>',
      ...(caption === '' ? [] : [`<figcaption${said}>${escapeHtml(caption)}</figcaption>`]),
      '</figure>',
    ].join('\n');
  },
  words: ({ attrs: { caption } }) => (caption === '' ? [] : [[{ type: 'text', text: caption }]]),
  style: (rules) => `.placard .gallery { display: block; clear: both; margin: 12px 0 22px; }
.placard .gallery > :is(ul, .row) { display: flex; flex-wrap: wrap; align-items: flex-start; gap: var(--gap); margin: 0; padding: 0; list-style: none; }
.placard .gallery > :is(ul, .row) > * { flex: none; width: calc((100% - var(--g)) * var(--s)); margin: 0; }
.gallery > figcaption { font: 14px/1.4 ${LABEL_FACES}; color: #55636a; padding-top: 6px; }
${GALLERY_PER_ROW.filter((perRow) => galleryNarrowBelow(perRow, rules) > 0)
  .map(
    (perRow) =>
      `@container placard (width < ${galleryNarrowBelow(perRow, rules)}px) { .placard .gallery.in-${perRow} > :is(ul, .row) > * { width: calc((100% - var(--m)) * var(--n)); } }`,
  )
  .join('\n')}`,
  reads: { 'figure.gallery': readGallery },
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isPlacedBlock) }),
    room: roomInside,
  },
};
