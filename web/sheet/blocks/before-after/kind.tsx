import { Node as EditorNode, mergeAttributes } from '@tiptap/core';
import { DIVIDER } from '#core/page/blocks/before-after/schema.ts';
import { toast } from '../../../ui/toast.ts';
import { blockOfType, takeApart } from '../arrange.ts';
import { OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { ROW_GROUP } from '../placement/node.ts';
import { makePair } from './commands.ts';
import { BeforeAfterRow } from './row.tsx';

const NO_PAIR = 'A before-and-after is made of two pictures that follow one another. Nothing was changed.';

const BeforeAfterNode = EditorNode.create({
  name: 'beforeAfter',
  group: `block ${ROW_GROUP}`,
  content: 'placement{0,2}',
  addAttributes: () => ({ divider: { default: DIVIDER.usual, rendered: false } }),
  parseHTML: () => [
    {
      tag: 'div.before-after',
      getAttrs: (element) => {
        const at = Number.parseInt(element.style.getPropertyValue('--at'), 10);
        return { divider: at >= DIVIDER.least && at <= DIVIDER.most ? at : DIVIDER.usual };
      },
    },
  ],
  renderHTML: ({ node, HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, OF_SHEET, {
      // One alone lies over nothing.
      class: node.childCount === 2 ? 'before-after' : '',
      style: `--at:${node.attrs.divider}%`,
    }),
    0,
  ],
});

export const beforeAfter: SheetKind = {
  types: ['beforeAfter'],
  nodes: () => [BeforeAfterNode],
  kept: ({ divider }) => ({ divider }),
  call: () => 'the before-and-after',
  title: 'Before and after',
  ways: [
    {
      words: 'before and after',
      sort: 'around',
      isOn: (editor) => editor.isActive('beforeAfter'),
      apply: (editor) => {
        const around = blockOfType(editor, 'beforeAfter');
        if (around) takeApart(editor, around, 'taking the before-and-after apart');
        else if (!makePair(editor)) toast.error(NO_PAIR);
        editor.view.focus();
      },
    },
  ],
  Row: BeforeAfterRow,
};
