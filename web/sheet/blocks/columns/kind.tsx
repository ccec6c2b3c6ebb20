import { Node as EditorNode, mergeAttributes } from '@tiptap/core';
import { COLUMN_SHARE, COLUMNS_GAP, tracksOfShares } from '#core/page/blocks/columns/schema.ts';
import { gapIn } from '#core/page/blocks/gap.ts';
import { toast } from '../../../ui/toast.ts';
import { blockOfType, PART_GROUP, takeApart } from '../arrange.ts';
import { FLOW_CONTENT, OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { makeColumns } from './commands.ts';
import { ColumnsRow } from './row.tsx';

const NO_COLUMNS =
  'What already stands in an arrangement of its own stands in no column. Nothing was changed.';

const ColumnsNode = EditorNode.create({
  name: 'columns',
  group: 'block',
  content: 'column+',
  defining: true,
  addAttributes: () => ({ gap: { default: COLUMNS_GAP, rendered: false } }),
  parseHTML: () => [
    {
      tag: 'div.columns',
      getAttrs: (element) => ({ gap: gapIn(element.getAttribute('style') ?? '', COLUMNS_GAP) }),
    },
  ],
  renderHTML: ({ node, HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, OF_SHEET, {
      class: `columns of-${node.childCount}`,
      'data-columns': String(node.attrs.id),
      style: `--gap:${node.attrs.gap}px;--shares:${tracksOfShares(node.children.map(({ attrs }) => Number(attrs.share)))}`,
    }),
    0,
  ],
});

const ColumnNode = EditorNode.create({
  name: 'column',
  group: PART_GROUP,
  content: FLOW_CONTENT,
  defining: true,
  isolating: true,
  addAttributes: () => ({
    share: { default: 50, rendered: false },
    leads: { default: false, rendered: false },
  }),
  parseHTML: () => [
    {
      tag: 'div.columns > div.column',
      getAttrs: (element) => ({ share: shareOf(element), leads: element.classList.contains('leads') }),
    },
  ],
  renderHTML: ({ node, HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, {
      class: node.attrs.leads ? 'column leads' : 'column',
      'data-share': String(node.attrs.share),
    }),
    0,
  ],
});

/** The share of a column as the sheet says it, or as a page does that went out: by its place in the row. */
function shareOf(element: HTMLElement): number {
  const row = element.parentElement;
  const tracks = row?.style.getPropertyValue('--shares').match(/\d{1,3}(?=fr)/g) ?? [];
  const at = row ? [...row.children].indexOf(element) : -1;
  const share = Number(element.dataset.share ?? tracks[at] ?? 50);
  return Number.isInteger(share) && share >= COLUMN_SHARE.least && share <= COLUMN_SHARE.most ? share : 50;
}

export const columns: SheetKind = {
  types: ['columns'],
  nodes: () => [ColumnsNode],
  kept: ({ gap }) => ({ gap }),
  call: () => 'the columns',
  title: 'Columns',
  ways: [
    {
      words: 'columns',
      sort: 'around',
      isOn: (editor) => editor.isActive('columns'),
      apply: (editor) => {
        const around = blockOfType(editor, 'columns');
        if (around) takeApart(editor, around, 'taking the columns apart');
        else if (!makeColumns(editor)) toast.error(NO_COLUMNS);
        editor.view.focus();
      },
    },
  ],
  Row: ColumnsRow,
};

export const column: SheetKind = {
  types: ['column'],
  nodes: () => [ColumnNode],
  kept: ({ share, leads }) => ({ share, leads }),
  call: (words) => (words === '' ? 'an empty column' : `the column ${words}`),
  title: 'A column',
  ways: [],
};
