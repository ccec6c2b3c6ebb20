import type { Editor, JSONContent } from '@tiptap/core';
import { type Command, Selection } from '@tiptap/pm/state';
import {
  addColumnAfter,
  addColumnBefore,
  addRowAfter,
  addRowBefore,
  deleteColumn,
  deleteRow,
  deleteTable,
  isInTable,
  mergeCells,
  moveTableColumn,
  moveTableRow,
  selectedRect,
  splitCell,
  toggleHeader,
} from '@tiptap/pm/tables';
import { TABLE_MOST } from '#core/page/blocks/table/schema.ts';
import { named } from '../../commands.ts';

/** A row of headings over two rows, three columns wide. */
export function newTable(): JSONContent {
  const cells = (type: string) =>
    Array.from({ length: 3 }, () => ({ type, content: [{ type: 'paragraph' }] }));
  const rows = ['tableHeader', 'tableCell', 'tableCell'];
  return { type: 'table', content: rows.map((type) => ({ type: 'tableRow', content: cells(type) })) };
}

/** What is done to a table at the cell that the caret is in, with what undo calls it. */
const DEEDS = {
  'row-above': ['adding a row', addRowBefore],
  'row-below': ['adding a row', addRowAfter],
  'row-out': ['taking a row out', deleteRow],
  'column-left': ['adding a column', addColumnBefore],
  'column-right': ['adding a column', addColumnAfter],
  'column-out': ['taking a column out', deleteColumn],
  merge: ['merging cells', mergeCells],
  split: ['splitting a cell', splitCell],
  'head-row': ['the headings of the columns', toggleHeader('row')],
  'head-column': ['the headings of the rows', toggleHeader('column')],
  out: ['taking the table off the page', deleteTable],
} as const satisfies Readonly<Record<string, readonly [name: string, command: Command]>>;
export type TableDeed = keyof typeof DEEDS;

/** Does one of them, as a step of its own; false where it cannot be done there. */
export function doToTable(editor: Editor, deed: TableDeed): boolean {
  const [name, command] = DEEDS[deed];
  return run(editor, name, command);
}

export function canDoToTable({ state }: Editor, deed: TableDeed): boolean {
  return DEEDS[deed][1](state) && !isOverMost(state, deed);
}

function isOverMost(state: Editor['state'], deed: TableDeed): boolean {
  if (!isInTable(state)) return false;
  const { map } = selectedRect(state);
  if (deed === 'row-above' || deed === 'row-below') return map.height >= TABLE_MOST.rows;
  return (deed === 'column-left' || deed === 'column-right') && map.width >= TABLE_MOST.columns;
}

/** Moves the row or the column that the caret is in by one. */
export function moveLine(editor: Editor, line: 'row' | 'column', by: -1 | 1): boolean {
  const { state } = editor;
  if (!isInTable(state)) return false;
  const { top, left, map } = selectedRect(state);
  const [from, most] = line === 'row' ? [top, map.height] : [left, map.width];
  const to = from + by;
  // At the edge it stays; the keys are the table's all the same.
  if (to < 0 || to >= most) return true;
  const command = line === 'row' ? moveTableRow({ from, to }) : moveTableColumn({ from, to });
  return run(editor, line === 'row' ? 'moving a row' : 'moving a column', command);
}

/** A command of the tables as one step that undo names. Where the command makes its own transaction, its steps are taken. */
function run(editor: Editor, name: string, command: Command): boolean {
  const { view } = editor;
  const done = command(editor.state, (made) => {
    const tr = named(editor, name);
    for (const step of made.steps) tr.step(step);
    if (made.selectionSet) tr.setSelection(Selection.fromJSON(tr.doc, made.selection.toJSON()));
    view.dispatch(tr.scrollIntoView());
  });
  view.focus();
  return done;
}

/** Where the caret is in its table. */
export interface TableStand {
  readonly rows: number;
  readonly columns: number;
  readonly hasHeadRow: boolean;
  readonly hasHeadColumn: boolean;
}

export function standInTable({ state }: Editor): TableStand | null {
  if (!isInTable(state)) return null;
  const { map, table } = selectedRect(state);
  const isHeaderAt = (offset: number) => table.nodeAt(offset)?.type.name === 'tableHeader';
  const first = map.cellsInRect({ left: 0, right: map.width, top: 0, bottom: 1 });
  const side = map.cellsInRect({ left: 0, right: 1, top: 0, bottom: map.height });
  return {
    rows: map.height,
    columns: map.width,
    hasHeadRow: first.every(isHeaderAt),
    hasHeadColumn: side.every(isHeaderAt),
  };
}
