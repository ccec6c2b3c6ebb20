import type { Editor } from '@tiptap/core';
import { BulletList, ListItem, ListKeymap, OrderedList } from '@tiptap/extension-list';
import { LIST_DEPTH_LIMIT } from '#core/page/blocks/list/schema.ts';
import { onSheet } from '../../on-sheet.ts';
import type { SheetKind } from '../kind.ts';

/** Items of a list hold text and lists; a piece stands between blocks, never inside one. */
const TextListItem = ListItem.extend({
  content: 'paragraph (paragraph | bulletList | orderedList)*',
  addKeyboardShortcuts() {
    const parent = this.parent?.() ?? {};
    // As deep as lists go, Tab stays where it is.
    return { ...parent, Tab: (props) => isDeepest(this.editor) || (parent.Tab?.(props) ?? false) };
  },
});

function isDeepest({ state }: Editor): boolean {
  const { $from } = state.selection;
  const around = Array.from({ length: $from.depth }, (_, at) => $from.node(at + 1).type.name);
  return around.filter((name) => list.types.includes(name)).length >= LIST_DEPTH_LIMIT;
}

export const list: SheetKind = {
  types: ['bulletList', 'orderedList'],
  nodes: () => [BulletList, OrderedList, TextListItem, ListKeymap],
  kept: ({ start }) => (start === undefined || start === 1 ? {} : { start }),
  call: (words) => `the list ${words}`,
  title: 'A list',
  ways: [
    {
      words: 'list',
      sort: 'is',
      isOn: (editor) => editor.isActive('bulletList'),
      apply: (editor) => void onSheet(editor).toggleBulletList().run(),
    },
    {
      words: 'numbered list',
      sort: 'is',
      isOn: (editor) => editor.isActive('orderedList'),
      apply: (editor) => void onSheet(editor).toggleOrderedList().run(),
    },
  ],
};
