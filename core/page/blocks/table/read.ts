import { attribute, type HtmlElement, textOf } from '../../html-tree.ts';
import { type Inline, isBlank } from '../../inline.ts';
import { readBlock } from '../../read-block.ts';
import { Flow, type ReadElement, type Reader, type ReadPart } from '../../reading.ts';
import type { ListItem } from '../list/schema.ts';
import { readLine } from '../read-flow-blocks.ts';
import { wholeGrid } from './grid.ts';
import { type Cell, TABLE_MOST, type TableRow } from './schema.ts';

/**
 * A table of one column or of one row only lays out what is in it, and so does one without header cells that has blocks in
 * its cells; any other is one. Pictures and what is framed in its cells
 * come after it. One that is larger than tables may be is said row by row.
 */
export const readTable: ReadElement = (node, flow, reader) => {
  read(node, flow, reader, isLayoutTable(node));
};

/** A table in the frame that Placard puts round its own (`kind.ts`): it is one, however few cells it has. */
export const readFramed: ReadElement = (node, flow, reader, marks) => {
  for (const child of node.children)
    if (typeof child !== 'string' && child.name === 'table') read(child, flow, reader, false);
    else reader.read(child, flow, marks);
};

function read(node: HtmlElement, flow: Flow, reader: Reader, isLaidOut: boolean): void {
  flow.endParagraph();
  const rows = rowsOf(node);
  const said = node.children.find((child) => typeof child !== 'string' && child.name === 'caption');
  const { line: caption, rest } = readLine(said ? textOf(said) : '', reader);
  const all = rows.map(({ cells }) => cells);
  if (isLaidOut) {
    if (said) reader.read(said, flow, []);
    for (const cell of all.flat()) readBlock(cell, flow, reader, []);
    return;
  }
  const after: ReadPart[] = [];
  const readRows = rows.map(
    ({ cells, isHead }): TableRow => ({
      type: 'tableRow',
      content: cells.map((cell) => readCell(cell, isHead, reader, after)),
    }),
  );
  const grid = wholeGrid(readRows);
  for (const part of rest) flow.putBlock(part);
  if (grid) flow.putBlock({ type: 'table', attrs: { id: reader.newId(), caption }, content: [...grid] });
  else asList(readRows, caption, flow, reader);
  for (const part of after) flow.put(part);
}

/** Whether a table only lays out what is in it. */
export const isLayoutTable = (node: HtmlElement): boolean => isLayout(rowsOf(node).map(({ cells }) => cells));

function isLayout(rows: readonly (readonly HtmlElement[])[]): boolean {
  const cells = rows.flat();
  if (cells.some(({ name }) => name === 'th')) return false;
  const widest = rows.reduce((most, { length }) => Math.max(most, length), 0);
  return widest < 2 || rows.length < 2 || cells.some(holdsBlocks);
}

/** What stands in the cells of a page that is laid out by a table, and in no table of facts. */
const LAID_OUT = /^(?:h[1-6]|ul|ol|dl|table|figure|form|article|section|nav|hr|blockquote|iframe|video)$/;

function holdsBlocks({ children }: HtmlElement): boolean {
  return children.some(
    (child) => typeof child !== 'string' && (LAID_OUT.test(child.name) || holdsBlocks(child)),
  );
}

/** A cell without words among headings is one of them: a corner, which is written as no header of anything. */
function readCell(node: HtmlElement, isInHead: boolean, reader: Reader, after: ReadPart[]): Cell {
  const inside = new Flow(reader.newId);
  readBlock(node, inside, reader, []);
  const lines = inside.parts.flatMap((part): Inline[][] => {
    if (part.kind === 'block') return reader.wordsOf(part.block).map((line) => [...line]);
    after.push(part);
    return [];
  });
  const said = lines.filter((line) => !isBlank(line));
  const [colspan, rowspan] = [
    spanIn(node, 'colspan', TABLE_MOST.columns),
    spanIn(node, 'rowspan', TABLE_MOST.rows),
  ];
  return {
    type: node.name === 'th' || (isInHead && said.length === 0) ? 'tableHeader' : 'tableCell',
    ...(colspan > 1 || rowspan > 1 ? { attrs: { colspan, rowspan } } : {}),
    content:
      said.length === 0
        ? [{ type: 'paragraph' }]
        : said.map((content) => ({ type: 'paragraph' as const, content })),
  };
}

/** A span as it is said, within what tables may have; 0 rows mean all that follow (WHATWG HTML, 4.9.11). */
function spanIn(node: HtmlElement, name: 'colspan' | 'rowspan', most: number): number {
  const said = Number.parseInt(attribute(node, name), 10);
  if (name === 'rowspan' && said === 0) return most;
  return said > 1 ? Math.min(said, most) : 1;
}

function asList(rows: readonly TableRow[], caption: string, flow: Flow, reader: Reader): void {
  reader.leave('table', flow);
  if (caption !== '') {
    flow.text(caption, []);
    flow.endParagraph();
  }
  const content = rows.flatMap((row): ListItem[] => {
    const line = joined(row.content.flatMap((cell) => cell.content.map((part) => part.content ?? [])));
    return line.length > 0 ? [{ type: 'listItem', content: [{ type: 'paragraph', content: line }] }] : [];
  });
  if (content.length > 0) flow.putBlock({ type: 'bulletList', attrs: { id: reader.newId() }, content });
}

/** Lines in one, with a comma between them. */
function joined(lines: readonly (readonly Inline[])[]): Inline[] {
  return lines
    .filter((line) => line.length > 0)
    .flatMap((line, at) => (at > 0 ? [{ type: 'text' as const, text: ', ' }, ...line] : [...line]));
}

interface ReadRow {
  readonly cells: readonly HtmlElement[];
  readonly isHead: boolean;
}

function rowsOf(part: HtmlElement, isHead = false): readonly ReadRow[] {
  return part.children.flatMap((child) => {
    if (typeof child === 'string') return [];
    if (child.name === 'tr') return [{ cells: cellsOf(child), isHead }];
    return /^t(?:head|body|foot)$/.test(child.name) ? rowsOf(child, child.name === 'thead') : [];
  });
}

const cellsOf = ({ children }: HtmlElement): HtmlElement[] =>
  children.filter((cell): cell is HtmlElement => typeof cell !== 'string' && /^t[dh]$/.test(cell.name));
