import { Heading } from '@tiptap/extension-heading';
import * as v from 'valibot';
import { AnchorSchema, HEADING_LEVELS } from '#core/page/blocks/heading/schema.ts';
import { onSheet } from '../../on-sheet.ts';
import type { SheetKind } from '../kind.ts';
import { HeadingRow } from './row.tsx';

const HeadingNode = Heading.extend({
  addAttributes() {
    return {
      ...this.parent?.(),
      anchor: {
        default: null,
        keepOnSplit: false,
        renderHTML: ({ anchor }) => (anchor ? { 'data-anchor': anchor } : {}),
        parseHTML: (element) => {
          const read = v.safeParse(AnchorSchema, element.dataset.anchor ?? element.id);
          return read.success ? read.output : null;
        },
      },
    };
  },
}).configure({ levels: [...HEADING_LEVELS] });

export const heading: SheetKind = {
  types: ['heading'],
  nodes: () => [HeadingNode],
  kept: ({ level, anchor }) => ({ level, ...(anchor ? { anchor: String(anchor) } : {}) }),
  call: (words) => `the heading ${words}`,
  title: 'A heading',
  ways: HEADING_LEVELS.map((level) => ({
    words: `heading ${level}`,
    sort: 'is',
    isOn: (editor) => editor.isActive('heading', { level }),
    apply: (editor) => void onSheet(editor).clearNodes().setHeading({ level }).run(),
  })),
  Row: HeadingRow,
};
