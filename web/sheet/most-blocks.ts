import { Extension } from '@tiptap/core';
import { Plugin } from '@tiptap/pm/state';
import { MOST_BLOCKS } from '#core/page/model.ts';

/**
 * No page gets more blocks than one may have, by whatever way they would come: what would make it longer is not done, and
 * said. What stands there stays as it was.
 */
export const mostBlocks = (onTooLong: (blocks: number) => void) =>
  Extension.create({
    name: 'mostBlocks',
    addProseMirrorPlugins() {
      return [
        new Plugin({
          filterTransaction: ({ docChanged, doc }, before) => {
            const isTooLong = doc.childCount > MOST_BLOCKS && doc.childCount > before.doc.childCount;
            if (!docChanged || !isTooLong) return true;
            queueMicrotask(() => onTooLong(doc.childCount));
            return false;
          },
        }),
      ];
    },
  });
