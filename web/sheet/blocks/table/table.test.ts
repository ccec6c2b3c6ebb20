// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { CellSelection } from '@tiptap/pm/tables';
import { afterEach, describe, expect, it } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import { type Cell, isHeader, type Table } from '#core/page/blocks/table/schema.ts';
import { plainText } from '#core/page/inline.ts';
import { paragraph, tableRow } from '#core/page/testing.ts';
import { ledger } from '../../../undo/ledger.ts';
import { blocksOf, closeEditor, copied, editorOf, layNothingOut, pasting } from '../../testing.ts';
import { TEXT_WAYS } from '../kinds.ts';
import { canDoToTable, doToTable, moveLine, standInTable, type TableDeed } from './commands.ts';

layNothingOut();
afterEach(closeEditor);

const tides: Table = {
  type: 'table',
  attrs: { id: 'tides', caption: 'High water' },
  content: [tableRow('Day', 'Time', 'm'), tableRow('Mon', '06:12', '4.1'), tableRow('Tue', '07:01', '4.2')],
};
const cellSaid = (cell: Cell) =>
  [
    isHeader(cell) ? '!' : '',
    cell.content.map(({ content }) => plainText(content)).join('/'),
    cell.attrs?.colspan ? `>${cell.attrs.colspan}` : '',
    cell.attrs?.rowspan ? `v${cell.attrs.rowspan}` : '',
  ].join('');
const said = (blocks: readonly Block[]) =>
  blocks.map((block) =>
    block.type === 'table'
      ? block.content.map(({ content }) => content.map(cellSaid).join(' ; '))
      : block.type === 'paragraph'
        ? plainText(block.content)
        : block.type,
  );
const tableIn = (editor: Editor) => said(blocksOf(editor).filter(({ type }) => type === 'table'))[0];

/** Puts the caret into the cell that says this, or chooses all cells from it to another. */
function inCell(editor: Editor, words: string, to = words): void {
  const at: Record<string, number> = {};
  editor.state.doc.descendants((node, pos) => {
    if (/^table(?:Cell|Header)$/.test(node.type.name)) at[node.textContent] = pos;
  });
  const [from, end] = [at[words], at[to]];
  if (from === undefined || end === undefined) throw new Error(`No cell says ${words}.`);
  if (from === end) editor.commands.setTextSelection(from + 2);
  else editor.view.dispatch(editor.state.tr.setSelection(CellSelection.create(editor.state.doc, from, end)));
}

describe('a table on the sheet', () => {
  it('is as the page has it', () => {
    expect(blocksOf(editorOf(tides))[0]).toEqual(tides);
    const merged: Table = {
      ...tides,
      content: [
        { type: 'tableRow', content: [{ ...cellOf('Day'), type: 'tableHeader', attrs: { colspan: 2 } }] },
        tableRow('Mon', '4.1'),
      ],
    };
    expect(blocksOf(editorOf(merged))[0]).toEqual(merged);
  });

  it('is added below the text, with headings, and the caret in its first cell', () => {
    const editor = editorOf(paragraph('Tides'));
    editor.commands.setTextSelection(2);
    TEXT_WAYS.find(({ words }) => words === 'table')?.apply(editor);
    editor.commands.insertContent('Day');
    expect(said(blocksOf(editor))).toEqual(['Tides', ['!Day ; ! ; !', ' ;  ; ', ' ;  ; '], '']);
  });

  it.each<readonly [TableDeed, string, string, readonly string[]]>([
    ['row-above', 'Mon', 'Mon', ['Day ; Time ; m', ' ;  ; ', 'Mon ; 06:12 ; 4.1', 'Tue ; 07:01 ; 4.2']],
    ['row-below', 'Tue', 'Tue', ['Day ; Time ; m', 'Mon ; 06:12 ; 4.1', 'Tue ; 07:01 ; 4.2', ' ;  ; ']],
    ['row-out', '06:12', '06:12', ['Day ; Time ; m', 'Tue ; 07:01 ; 4.2']],
    ['column-left', 'Day', 'Day', [' ; Day ; Time ; m', ' ; Mon ; 06:12 ; 4.1', ' ; Tue ; 07:01 ; 4.2']],
    ['column-right', 'm', 'm', ['Day ; Time ; m ; ', 'Mon ; 06:12 ; 4.1 ; ', 'Tue ; 07:01 ; 4.2 ; ']],
    ['column-out', 'Time', 'Time', ['Day ; m', 'Mon ; 4.1', 'Tue ; 4.2']],
    ['head-row', 'm', 'm', ['!Day ; !Time ; !m', 'Mon ; 06:12 ; 4.1', 'Tue ; 07:01 ; 4.2']],
    ['head-column', 'm', 'm', ['!Day ; Time ; m', '!Mon ; 06:12 ; 4.1', '!Tue ; 07:01 ; 4.2']],
    ['merge', 'Mon', '07:01', ['Day ; Time ; m', 'Mon/06:12/Tue/07:01>2v2 ; 4.1', '4.2']],
  ])('takes %s at %s to %s as one step that undo names', (deed, from, to, rows) => {
    const editor = editorOf(tides);
    inCell(editor, from, to);
    expect(doToTable(editor, deed)).toBe(true);
    expect(tableIn(editor)).toEqual(rows);
    expect(ledger.store.state.done.map(({ name }) => name)).toEqual([expect.not.stringMatching(/^typing$/)]);
    editor.commands.undo();
    expect(blocksOf(editor)[0]).toEqual(tides);
  });

  it('keeps what is typed right after apart from what was done before it', () => {
    const editor = editorOf(tides);
    inCell(editor, 'Tue');
    moveLine(editor, 'row', -1);
    editor.commands.insertContent('sday');
    editor.commands.undo();
    expect(tableIn(editor)).toEqual(['Day ; Time ; m', 'Tue ; 07:01 ; 4.2', 'Mon ; 06:12 ; 4.1']);
  });

  it('is split where it was merged', () => {
    const editor = editorOf(tides);
    inCell(editor, 'Mon', '06:12');
    doToTable(editor, 'merge');
    expect(canDoToTable(editor, 'split')).toBe(true);
    doToTable(editor, 'split');
    expect(tableIn(editor)).toEqual(['Day ; Time ; m', 'Mon/06:12 ;  ; 4.1', 'Tue ; 07:01 ; 4.2']);
  });

  it('moves a row and a column, and stays where they are at its edge', () => {
    const editor = editorOf(tides);
    inCell(editor, 'Tue');
    expect(moveLine(editor, 'row', 1)).toBe(true);
    expect(tableIn(editor)).toEqual(['Day ; Time ; m', 'Mon ; 06:12 ; 4.1', 'Tue ; 07:01 ; 4.2']);
    moveLine(editor, 'row', -1);
    expect(tableIn(editor)).toEqual(['Day ; Time ; m', 'Tue ; 07:01 ; 4.2', 'Mon ; 06:12 ; 4.1']);
    moveLine(editor, 'column', 1);
    expect(tableIn(editor)).toEqual(['Time ; Day ; m', '07:01 ; Tue ; 4.2', '06:12 ; Mon ; 4.1']);
  });

  it('says how large it is and which cells are headings', () => {
    const editor = editorOf(tides);
    editor.commands.setTextSelection(editor.state.doc.content.size - 1);
    expect(standInTable(editor)).toBeNull();
    inCell(editor, 'Mon');
    doToTable(editor, 'head-row');
    expect(standInTable(editor)).toEqual({ rows: 3, columns: 3, hasHeadRow: true, hasHeadColumn: false });
    expect(canDoToTable(editor, 'merge')).toBe(false);
  });

  it('is taken off the page whole', () => {
    const editor = editorOf(paragraph('Tides'), tides);
    inCell(editor, 'Mon');
    doToTable(editor, 'out');
    expect(said(blocksOf(editor))).toEqual(['Tides', '']);
  });
});

const cellOf = (text: string): Cell => ({
  type: 'tableCell',
  content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
});

describe('a table on the clipboard', () => {
  it('comes back as it was', () => {
    const editor = editorOf(tides);
    inCell(editor, 'Mon');
    doToTable(editor, 'head-row');
    const html = copied(editor);
    const other = editorOf(paragraph('Here'));
    other.commands.setTextSelection(5);
    other.view.pasteHTML(html, pasting());
    const [, table] = blocksOf(other);
    expect(table?.type === 'table' && table.attrs.caption).toBe('High water');
    expect(tableIn(other)).toEqual(['!Day ; !Time ; !m', 'Mon ; 06:12 ; 4.1', 'Tue ; 07:01 ; 4.2']);
  });

  it('that was copied in part fills the cells that it is put into', () => {
    const editor = editorOf(tides);
    inCell(editor, 'Mon', '06:12');
    const { dom } = editor.view.serializeForClipboard(editor.state.selection.content());
    inCell(editor, 'Tue');
    editor.view.pasteHTML(dom.innerHTML, pasting());
    expect(tableIn(editor)).toEqual(['Day ; Time ; m', 'Mon ; 06:12 ; 4.1', 'Mon ; 06:12 ; 4.2']);
  });

  it('of a spreadsheet is one, without the style of its cells', () => {
    const editor = editorOf(paragraph('Here'));
    editor.commands.setTextSelection(5);
    const html =
      '<table border="1"><colgroup><col></colgroup><tr><td style="color:red">Day</td><td>m</td></tr><tr><td>Mon</td><td><b>4.1</b></td></tr></table>';
    editor.view.pasteHTML(html, pasting());
    expect(said(blocksOf(editor))).toEqual(['Here', ['Day ; m', 'Mon ; 4.1'], '']);
    expect(JSON.stringify(blocksOf(editor))).toContain('"bold"');
  });

  const pasteText = (editor: Editor, text: string, shiftKey = false) => {
    editor.view.dom.dispatchEvent(new KeyboardEvent('keydown', { key: 'v', ctrlKey: true, shiftKey }));
    const clipboardData = { types: ['text/plain'], files: [], getData: () => text };
    const event = Object.assign(new Event('paste'), { clipboardData });
    return editor.view.someProp('handlePaste', (handle) =>
      handle(editor.view, event as unknown as ClipboardEvent, editor.state.doc.slice(0)),
    );
  };

  it('as plain text by tabs is one, and stays text with Shift', () => {
    const editor = editorOf(paragraph('Here'));
    editor.commands.setTextSelection(5);
    expect(pasteText(editor, 'Day\tm\nMon\t4.1', true)).toBeFalsy();
    pasteText(editor, 'Day\tm\nMon\t4.1');
    expect(said(blocksOf(editor))).toEqual(['Here', ['!Day ; !m', 'Mon ; 4.1'], '']);
  });

  it('as plain text fills the cells that it is put into', () => {
    const editor = editorOf(tides);
    inCell(editor, '06:12');
    pasteText(editor, '05:55\t3.9\n06:40\t4.0');
    expect(tableIn(editor)).toEqual(['Day ; Time ; m', 'Mon ; 05:55 ; 3.9', 'Tue ; 06:40 ; 4.0']);
  });
});
