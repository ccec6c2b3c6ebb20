import { Paragraph } from '@tiptap/extension-paragraph';
import { onSheet } from '../../on-sheet.ts';
import type { SheetKind } from '../kind.ts';
import { paragraphNumberOf } from './numbers.ts';

export const paragraph: SheetKind = {
  types: ['paragraph'],
  nodes: () => [Paragraph],
  kept: () => ({}),
  call: (words, doc, node) =>
    words ? `paragraph ${paragraphNumberOf(doc, node)}, ${words}` : 'an empty line',
  title: 'Text',
  ways: [
    {
      words: 'text',
      sort: 'is',
      isOn: (editor) => editor.isActive('paragraph'),
      apply: (editor) => void onSheet(editor).clearNodes().run(),
    },
  ],
};
