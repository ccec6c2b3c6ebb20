import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { DecorationSet } from '@tiptap/pm/view';
import { galleryParts, partStyle } from '#core/page/blocks/gallery/rows.ts';
import type { Gallery } from '#core/page/blocks/gallery/schema.ts';
import { WHOLE } from '#core/page/room.ts';
import { corePieces, pieces } from '../../../pieces/pieces.ts';
import { partOfRow, placementOf } from '../placement/node.ts';
import { forEachBlock } from '../walk.ts';

const PARTS = new PluginKey<DecorationSet>('gallery-parts');

/**
 * Tells each piece of a gallery its part of the row, which follows from the shapes of all: anew when the page changes, and
 * when a piece does.
 */
export const galleryShares = Extension.create({
  name: 'galleryShares',
  addProseMirrorPlugins: () => [
    new Plugin<DecorationSet>({
      key: PARTS,
      state: {
        init: (_config, { doc }) => partsIn(doc),
        apply: (tr, before, _old, { doc }) => {
          if (tr.getMeta(PARTS)) return partsIn(doc);
          if (!tr.docChanged) return before;
          return hasGallery(doc) ? partsIn(doc) : DecorationSet.empty;
        },
      },
      props: { decorations: (state) => PARTS.getState(state) },
      view: (view) => {
        const stop = pieces.subscribe(() => {
          if (hasGallery(view.state.doc))
            view.dispatch(view.state.tr.setMeta(PARTS, true).setMeta('addToHistory', false));
        });
        return { destroy: stop };
      },
    }),
  ],
});

/** They stand on the page itself alone. */
const hasGallery = (doc: Node) => doc.children.some(({ type }) => type.name === 'gallery');

function partsIn(doc: Node): DecorationSet {
  const marks: ReturnType<typeof partOfRow>[] = [];
  const known = corePieces();
  forEachBlock(doc, (node, pos) => {
    if (node.type.name !== 'gallery') return;
    const parts = galleryParts(galleryOf(node), known);
    node.forEach((piece, offset, at) => {
      const from = pos + 1 + offset;
      const own = { wide: parts.wide[at] ?? WHOLE, narrow: parts.narrow[at] ?? WHOLE };
      marks.push(partOfRow(from, from + piece.nodeSize, partStyle(own)));
    });
  });
  return DecorationSet.create(doc, marks);
}

function galleryOf({ attrs, children }: Node): Gallery {
  return {
    type: 'gallery',
    attrs: { id: String(attrs.id), perRow: attrs.perRow, gap: attrs.gap, caption: attrs.caption },
    content: children.map((child) => ({ type: 'placement', attrs: placementOf(child) })),
  };
}
