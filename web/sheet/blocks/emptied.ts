import { Extension } from '@tiptap/core';
import { Plugin } from '@tiptap/pm/state';
import { ROW_GROUP } from './placement/node.ts';
import { forEachBlock } from './walk.ts';

/** An arrangement that its last piece has left goes with it, in the same step. */
export const emptiedRows = Extension.create({
  name: 'emptiedRows',
  addProseMirrorPlugins: () => [
    new Plugin({
      appendTransaction: (transactions, _before, { doc, tr }) => {
        if (!transactions.some(({ docChanged }) => docChanged)) return null;
        const empty: { readonly from: number; readonly to: number }[] = [];
        forEachBlock(doc, (node, pos) => {
          if (node.type.isInGroup(ROW_GROUP) && node.childCount === 0)
            empty.push({ from: pos, to: pos + node.nodeSize });
        });
        for (const { from, to } of empty.reverse()) tr.delete(from, to);
        return tr.docChanged ? tr : null;
      },
    }),
  ],
});
