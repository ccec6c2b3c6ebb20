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
          return tr.docChanged ? partsIn(doc) : before;
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

const hasGallery = (doc: Node) => doc.children.some((block) => partsOf(block, corePieces()).length > 0);

function partsIn(doc: Node): DecorationSet {
  const known = corePieces();
  const marks: ReturnType<typeof partOfRow>[] = [];
  doc.forEach((block, start) => {
    for (const { from, to, style } of partsOf(block, known))
      marks.push(partOfRow(start + from, start + to, style));
  });
  return DecorationSet.create(doc, marks);
}

/** The part of one piece, counted from the head of the block of the page that it stands in. */
interface Part {
  readonly from: number;
  readonly to: number;
  readonly style: string;
}

type Pieces = ReturnType<typeof corePieces>;

/** What was found in a block of the page, which never changes: only the one that is typed in is gone through at a key. */
const found = new WeakMap<Node, { readonly known: Pieces; readonly parts: readonly Part[] }>();

function partsOf(block: Node, known: Pieces): readonly Part[] {
  const before = found.get(block);
  if (before?.known === known) return before.parts;
  const parts: Part[] = [];
  forEachBlock(block, (node, pos) => {
    // Places in a block begin behind its head.
    if (node.type.name === 'gallery') parts.push(...partsOfGallery(node, pos + 1, known));
  });
  if (block.type.name === 'gallery') parts.push(...partsOfGallery(block, 0, known));
  found.set(block, { known, parts });
  return parts;
}

function partsOfGallery(gallery: Node, start: number, known: Pieces): readonly Part[] {
  const { wide, narrow } = galleryParts(galleryOf(gallery), known);
  const parts: Part[] = [];
  gallery.forEach((piece, offset, at) => {
    const from = start + 1 + offset;
    const style = partStyle({ wide: wide[at] ?? WHOLE, narrow: narrow[at] ?? WHOLE });
    parts.push({ from, to: from + piece.nodeSize, style });
  });
  return parts;
}

function galleryOf({ attrs, children }: Node): Gallery {
  return {
    type: 'gallery',
    attrs: { id: String(attrs.id), perRow: attrs.perRow, gap: attrs.gap, caption: attrs.caption },
    content: children.map((child) => ({ type: 'placement', attrs: placementOf(child) })),
  };
}
