import { Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin } from '@tiptap/pm/state';
import { SHEET_KINDS } from './kinds.ts';
import { forEachBlock } from './walk.ts';

/**
 * Every block has an ID of its own, by which findings and changes of others find it. What is split, pasted or copied is a new
 * block and gets a new one.
 */
export const blockIds = Extension.create({
  name: 'blockIds',
  addGlobalAttributes() {
    return [
      {
        types: SHEET_KINDS.flatMap(({ types }) => types).filter((type) => type !== 'placement'),
        attributes: { id: { default: null, rendered: false, keepOnSplit: false } },
      },
    ];
  },
  addProseMirrorPlugins() {
    return [
      new Plugin({
        appendTransaction: (transactions, before, { doc, tr }) => {
          if (!transactions.some(({ docChanged }) => docChanged) || keepsBlocks(before.doc, doc)) return null;
          const taken = new Set<unknown>();
          forEachBlock(doc, (block, pos) => {
            const { id } = block.attrs;
            if (typeof id === 'string' && !taken.has(id)) taken.add(id);
            else if (id !== undefined) tr.setNodeAttribute(pos, 'id', crypto.randomUUID());
          });
          return tr.docChanged ? tr : null;
        },
      }),
    ];
  },
});

/** Whether the blocks of the page are the same as before, one by one, but for what is said in them: as while typing. */
function keepsBlocks(before: Node, now: Node): boolean {
  if (before.childCount !== now.childCount) return false;
  for (let at = 0; at < now.childCount; at += 1) {
    const [one, other] = [before.child(at), now.child(at)];
    if (one === other) continue;
    const hasSameId = typeof one.attrs.id === 'string' && one.attrs.id === other.attrs.id;
    if (!hasSameId || !one.isTextblock || !other.isTextblock) return false;
  }
  return true;
}
