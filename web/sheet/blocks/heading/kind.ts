import { Heading } from '@tiptap/extension-heading';
import { HEADING_LEVELS } from '#core/page/blocks/heading/schema.ts';
import { onSheet } from '../../on-sheet.ts';
import type { SheetKind } from '../kind.ts';

export const heading: SheetKind = {
  types: ['heading'],
  nodes: () => [Heading.configure({ levels: [...HEADING_LEVELS] })],
  kept: ({ level }) => ({ level }),
  call: (words) => `the heading ${words}`,
  title: 'A heading',
  ways: HEADING_LEVELS.map((level) => ({
    words: `heading ${level}`,
    sort: 'is',
    isOn: (editor) => editor.isActive('heading', { level }),
    apply: (editor) => void onSheet(editor).clearNodes().setHeading({ level }).run(),
  })),
};
