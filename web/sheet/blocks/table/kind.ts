import { mergeAttributes } from '@tiptap/core';
import { Table, TableCell, TableHeader, TableRow } from '@tiptap/extension-table';
import * as v from 'valibot';
import { TableCaptionSchema } from '#core/page/blocks/table/schema.ts';
import { afterSelection } from '../../commands.ts';
import { onSheet } from '../../on-sheet.ts';
import { OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { moveLine, newTable } from './commands.ts';
import { TableLabel } from './row.tsx';

const TableNode = Table.extend({
  addAttributes: () => ({
    caption: {
      default: '',
      rendered: false,
      parseHTML: (element: HTMLElement) => captionIn(element),
    },
  }),
  parseHTML: () => [{ tag: 'table' }, { tag: 'table > caption', ignore: true }],
  renderHTML: ({ node, HTMLAttributes }) => {
    const said = String(node.attrs.caption);
    const caption = said === '' ? [] : [['caption', { contenteditable: 'false' }, said] as const];
    return [
      'div',
      { class: 'table-frame' },
      ['table', mergeAttributes(HTMLAttributes, OF_SHEET), ...caption, ['tbody', 0]],
    ];
  },
  addKeyboardShortcuts() {
    const move = (line: 'row' | 'column', by: -1 | 1) => () => moveLine(this.editor, line, by);
    return {
      ...this.parent?.(),
      'Alt-ArrowUp': move('row', -1),
      'Alt-ArrowDown': move('row', 1),
      'Alt-ArrowLeft': move('column', -1),
      'Alt-ArrowRight': move('column', 1),
    };
  },
});

function captionIn(element: HTMLElement): string {
  const said = v.safeParse(TableCaptionSchema, element.querySelector(':scope > caption')?.textContent ?? '');
  return said.success ? said.output : '';
}

/** A cell holds lines, and nothing that would make it a page of its own. */
const cellOf = (tag: 'td' | 'th') => ({
  content: 'paragraph+',
  addAttributes: () => ({
    colspan: { default: 1 },
    rowspan: { default: 1 },
    colwidth: { default: null, rendered: false },
  }),
  renderHTML: ({ HTMLAttributes }: { readonly HTMLAttributes: Record<string, unknown> }) =>
    [tag, mergeAttributes(HTMLAttributes, OF_SHEET), 0] as const,
});

/** Of a cell's attributes a page keeps those that say something. */
const keptOfCell = ({ colspan, rowspan }: Readonly<Record<string, unknown>>) => ({
  ...(Number(colspan) > 1 ? { colspan } : {}),
  ...(Number(rowspan) > 1 ? { rowspan } : {}),
});

export const table: SheetKind = {
  types: ['table'],
  parts: { tableCell: keptOfCell, tableHeader: keptOfCell },
  nodes: () => [
    TableNode.configure({ View: null }),
    TableRow,
    TableCell.extend(cellOf('td')),
    TableHeader.extend(cellOf('th')),
  ],
  kept: ({ caption }) => ({ caption }),
  says: { caption: 'the caption of a table' },
  call: (words, _doc, node) => `the table ${String(node.attrs.caption) || words}`,
  title: 'A table',
  holdsWordsAlone: true,
  ways: [
    {
      words: 'table',
      sort: 'adds',
      isOn: (editor) => editor.isActive('table'),
      apply: (editor) => {
        if (editor.isActive('table')) return;
        const at = afterSelection(editor, 'table');
        onSheet(editor)
          .insertContentAt(at, newTable())
          .setTextSelection(at + 4)
          .run();
      },
    },
  ],
  Row: TableLabel,
};
