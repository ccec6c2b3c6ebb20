import { Extension } from '@tiptap/core';
import { Plugin } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { forEachBlock } from './blocks/walk.ts';

/** How the mark looks: it lies in the corner of the piece. */
export const LEAD_LOOK =
  '[&_[data-lead]]:relative [&_[data-lead]]:before:absolute [&_[data-lead]]:before:top-0 [&_[data-lead]]:before:left-0 [&_[data-lead]]:before:z-1 [&_[data-lead]]:before:bg-paper-ink [&_[data-lead]]:before:px-2 [&_[data-lead]]:before:font-sans [&_[data-lead]]:before:text-sm [&_[data-lead]]:before:font-semibold [&_[data-lead]]:before:text-paper [&_[data-lead]]:before:content-[attr(data-lead)]';

/** Marks the piece that leads the article, where one was chosen. */
export const leadMark = Extension.create({
  name: 'leadMark',
  addProseMirrorPlugins: () => [
    new Plugin({
      props: {
        decorations: ({ doc }) => {
          const { lead } = doc.attrs;
          if (typeof lead !== 'string') return null;
          const marks: Decoration[] = [];
          forEachBlock(doc, (node, pos) => {
            if (node.type.name === 'placement' && node.attrs.id === lead)
              marks.push(Decoration.node(pos, pos + node.nodeSize, { 'data-lead': 'Lead' }));
          });
          return DecorationSet.create(doc, marks);
        },
      },
    }),
  ],
});
