import { messagesFor } from '../../../messages/messages.ts';
import { escapeHtml } from '../../escape.ts';
import { isBlank } from '../../inline.ts';
import type { BlockContext } from '../../write-context.ts';
import { writeInlines } from '../../write-inline.ts';
import type { BlockKind } from '../kind.ts';
import { placedCells } from './grid.ts';
import { readFramed, readTable } from './read.ts';
import { type Cell, colspanOf, isHeader, rowspanOf, type Table, type TableRow } from './schema.ts';

/** As wide as what it says, up to the column; on a phone, where that is little, cells keep a width to read in and it scrolls. */
const LEAST_WIDTH = '34em';

const INLINE = {
  around: 'clear:both;overflow-x:auto;margin:12px 0 22px',
  table: `width:max-content;min-width:100%;max-width:max(100%,${LEAST_WIDTH});border-collapse:collapse;font-size:0.94em;line-height:1.35`,
  caption: 'text-align:left;padding:0 0 6px;font-weight:600',
  cell: 'border-bottom:1px solid #8a989d;padding:6px 10px 6px 0;text-align:left;vertical-align:top',
};

/**
 * A table (WHATWG HTML, 4.9) that scrolls in itself where it is wider than the window; it is then scrolled by keyboard too,
 * and so has a name (WCAG 2.2, 2.1.1 and 4.1.2). Header cells say what they are headers of (`scope`).
 */
export const table: BlockKind<Table> = {
  write: (block, context) => {
    const { rules, isInline } = context;
    const { caption } = block.attrs;
    const style = (part: keyof typeof INLINE) => (isInline ? ` style="${INLINE[part]}"` : '');
    const name = escapeHtml(caption || messagesFor(rules.language).table);
    const said = caption === '' ? '' : `<caption${style('caption')}>${escapeHtml(caption)}</caption>\n`;
    const rows = writeRows(block, style('cell'), context);
    return `<div class="table-frame" role="region" aria-label="${name}" tabindex="0"${style('around')}>\n<table${style('table')}>\n${said}${rows}\n</table>\n</div>`;
  },
  words: ({ attrs: { caption }, content }) => [
    ...(caption === '' ? [] : [[{ type: 'text' as const, text: caption }]]),
    ...content.flatMap((row) => row.content.flatMap((cell) => cell.content.map((line) => line.content))),
  ],
  findings: ({ attrs: { id }, content }) =>
    content.some((row) => row.content.some(isHeader))
      ? []
      : [
          {
            code: 'table-headless',
            values: {},
            place: { kind: 'block', blockId: id },
            remedies: [{ kind: 'head-row', blockId: id }],
          },
        ],
  style: () => `.placard .table-frame { clear: both; overflow-x: auto; margin: 12px 0 22px; }
.table-frame > table { width: max-content; min-width: 100%; max-width: max(100%, ${LEAST_WIDTH}); border-collapse: collapse; font-size: 0.94em; line-height: 1.35; font-variant-numeric: tabular-nums; }
.table-frame caption { padding: 0 0 6px; font-weight: 600; text-align: left; }
.table-frame :is(th, td) { min-width: 3em; padding: 6px 14px 6px 0; border-bottom: 1px solid #8a989d; text-align: left; vertical-align: top; }
.table-frame tr:not(:has(> td)) > th { border-bottom: 2px solid currentColor; vertical-align: bottom; }
.placard .table-frame :is(th, td) > p { margin: 0 0 0.3em; }
.placard .table-frame :is(th, td) > p:last-child { margin: 0; }
.table-frame:focus-visible { outline: 2px solid currentColor; outline-offset: 4px; }
@media print { .placard .table-frame { overflow: visible; } .table-frame tr { break-inside: avoid; } .table-frame thead { display: table-header-group; } }`,
  reads: { table: readTable, 'div.table-frame': readFramed },
};

function writeRows({ content }: Table, style: string, context: BlockContext): string {
  const head = headRows(content);
  const lines = placedCells(content).map((cells, row) => {
    const inner = cells.map(({ cell, column }) =>
      writeCell(cell, row < head || column > 0 || !isHeader(cell) ? 'col' : 'row', style, context),
    );
    return `<tr>${inner.join('')}</tr>`;
  });
  const [over, under] = [lines.slice(0, head), lines.slice(head)];
  const thead = over.length === 0 ? '' : `<thead>\n${over.join('\n')}\n</thead>\n`;
  return `${thead}<tbody>\n${under.join('\n')}\n</tbody>`;
}

/** How many rows at the top are headers alone, and end above the next; never all of them. */
function headRows(rows: readonly TableRow[]): number {
  const first = rows.findIndex(({ content }) => content.length === 0 || !content.every(isHeader));
  const head = first < 0 ? rows.length - 1 : first;
  const isWhole = rows
    .slice(0, head)
    .every(({ content }, row) => content.every((cell) => row + rowspanOf(cell) <= head));
  return isWhole ? head : 0;
}

function writeCell(cell: Cell, scope: 'col' | 'row', style: string, context: BlockContext): string {
  // A header that says nothing is one of nothing, as in the corner of a table.
  const isHead = isHeader(cell) && cell.content.some(({ content }) => !isBlank(content));
  const name = isHead ? 'th' : 'td';
  const attributes = [
    ...(isHead ? [` scope="${scope}"`] : []),
    ...(colspanOf(cell) > 1 ? [` colspan="${colspanOf(cell)}"`] : []),
    ...(rowspanOf(cell) > 1 ? [` rowspan="${rowspanOf(cell)}"`] : []),
  ];
  const said = cell.content.filter(({ content }) => !isBlank(content));
  const [only] = said;
  const inner =
    said.length <= 1
      ? writeInlines(only?.content, context)
      : said.map(({ content }) => `<p>${writeInlines(content, context)}</p>`).join('');
  return `<${name}${attributes.join('')}${style}>${inner}</${name}>`;
}
