import { Node as EditorNode, mergeAttributes, textblockTypeInputRule } from '@tiptap/core';
import { onSheet } from '../../on-sheet.ts';
import type { SheetKind } from '../kind.ts';

/** Code keeps its breaks and blanks: Enter is a break in it, and Enter on an empty last line leads out of it. */
const CodeNode = EditorNode.create({
  name: 'codeBlock',
  group: 'block',
  content: 'text*',
  marks: '',
  code: true,
  defining: true,
  parseHTML: () => [{ tag: 'pre', preserveWhitespace: 'full' }],
  renderHTML: ({ HTMLAttributes }) => [
    'pre',
    mergeAttributes(HTMLAttributes, { class: 'code' }),
    ['code', 0],
  ],
  addKeyboardShortcuts() {
    return {
      Enter: ({ editor }) => {
        const { $from, empty } = editor.state.selection;
        if ($from.parent.type !== this.type || !empty) return false;
        const isAtEnd = $from.parentOffset === $from.parent.content.size;
        if (!isAtEnd || !$from.parent.textContent.endsWith('\n')) return editor.commands.newlineInCode();
        const next = editor.state.doc.nodeAt($from.after());
        const hasLine = next?.type.name === 'paragraph' && next.content.size === 0;
        const left = editor.chain().command(({ tr }) => {
          tr.delete($from.pos - 1, $from.pos);
          return true;
        });
        return (hasLine ? left.setTextSelection($from.after()) : left.exitCode()).run();
      },
    };
  },
  addInputRules() {
    return [textblockTypeInputRule({ find: /^```\s$/, type: this.type })];
  },
});

export const codeBlock: SheetKind = {
  types: ['codeBlock'],
  nodes: () => [CodeNode],
  kept: () => ({}),
  call: (words) => `the code ${words}`,
  title: 'Code',
  ways: [
    {
      words: 'code',
      sort: 'is',
      isOn: (editor) => editor.isActive('codeBlock'),
      apply: (editor) => void onSheet(editor).toggleNode('codeBlock', 'paragraph').run(),
    },
  ],
};
