import { Node as EditorNode, mergeAttributes, nodeInputRule } from '@tiptap/core';
import { afterSelection } from '../../commands.ts';
import { onSheet } from '../../on-sheet.ts';
import type { SheetKind } from '../kind.ts';

const RuleNode = EditorNode.create({
  name: 'rule',
  group: 'block',
  parseHTML: () => [{ tag: 'hr' }],
  renderHTML: ({ HTMLAttributes }) => ['hr', mergeAttributes(HTMLAttributes, { class: 'rule' })],
  addInputRules() {
    return [nodeInputRule({ find: /^(?:---|—-)$/, type: this.type })];
  },
});

export const rule: SheetKind = {
  types: ['rule'],
  nodes: () => [RuleNode],
  kept: () => ({}),
  call: () => 'the line across the page',
  words: () => '',
  title: 'A line across the page',
  ways: [
    {
      words: 'line across',
      sort: 'adds',
      isOn: (editor) => editor.isActive('rule'),
      apply: (editor) => {
        if (editor.isActive('rule')) return;
        onSheet(editor).insertContentAt(afterSelection(editor, 'rule'), { type: 'rule' }).run();
      },
    },
  ],
};
