import { ALL_KINDS, kindOf } from './blocks/kinds.ts';
import type { ListItem } from './blocks/list/schema.ts';
import { escapeHtml } from './escape.ts';
import { attribute, elementsIn, type HtmlElement, type HtmlNode } from './html-tree.ts';
import type { Inline } from './inline.ts';
import type { LeftOut } from './left-out.ts';
import { readBlock } from './read-block.ts';
import { marksOf, withMark } from './read-marks.ts';
import { Flow, type Marks, type ReadElement, type Reader, type ReadPart } from './reading.ts';
import { offeredPicture } from './rich-pasted.ts';
import { isSilent } from './silent.ts';

export interface HtmlReading {
  readonly parts: readonly ReadPart[];
  /** What did not come along as it was, in reading order, with where it stood. */
  readonly leftOut: readonly LeftOut[];
}

/**
 * Reads a tree of HTML into blocks of the page model by what its elements mean (WHATWG HTML, 4.3 to 4.5): each kind of block
 * reads the elements that become one (`blocks/kinds.ts`), and the rest is read here. Tables become lists of their rows until
 * there are tables. What the model cannot say is read as text, and said. `newId` gives each block an ID. Linear in the tree.
 * Never runs, never loads anything.
 */
export function readHtml(nodes: readonly HtmlNode[], newId: () => string): HtmlReading {
  const leftOut: LeftOut[] = [];
  const flow = new Flow(newId);
  const reader: Reader = {
    newId,
    // An inner flow that is still empty stands where the outer one is.
    leave: (code, where) => leftOut.push({ code, after: where.lastWords() || flow.lastWords() }),
    read: (node, into, marks) => readNode(node, into, reader, marks),
    readAll: (some, into, marks) => {
      for (const node of some) readNode(node, into, reader, marks);
    },
  };
  reader.readAll(nodes, flow, []);
  flow.endParagraph();
  return { parts: flow.parts, leftOut };
}

const names = (list: string, read: ReadElement) =>
  Object.fromEntries(list.split(' ').map((name) => [name, read]));

const readPicture: ReadElement = (node, flow) => {
  const img = node.name === 'img' ? node : [...elementsIn(node)].find(({ name }) => name === 'img');
  if (!img || isDot(img)) return;
  const sources = node === img ? [] : [...elementsIn(node)].filter(({ name }) => name === 'source');
  flow.put({ kind: 'picture', offered: offeredPicture({ img, sources }) });
};

/** A table of one column or of one row only lays out what is in it; any other is said row by row. */
const readTable: ReadElement = (node, flow, reader) => {
  flow.endParagraph();
  const rows = rowsOf(node);
  const widest = Math.max(0, ...rows.map((cells) => cells.length));
  const isLayout = (widest < 2 || rows.length < 2) && !rows.flat().some(({ name }) => name === 'th');
  const caption = node.children.find((child) => typeof child !== 'string' && child.name === 'caption');
  if (!isLayout) reader.leave('table', flow);
  if (caption) reader.read(caption, flow, []);
  if (isLayout) {
    for (const cell of rows.flat()) readBlock(cell, flow, reader, []);
    return;
  }
  const after: ReadPart[] = [];
  const content = rows.flatMap((cells): ListItem[] => {
    const line = joined(cells.map((cell) => readCell(cell, reader, after)));
    return line.length > 0 ? [{ type: 'listItem', content: [{ type: 'paragraph', content: line }] }] : [];
  });
  if (content.length > 0) flow.putBlock({ type: 'bulletList', attrs: { id: reader.newId() }, content });
  for (const part of after) flow.put(part);
};

/** What a cell says, in one line. */
function readCell(cell: HtmlElement, reader: Reader, after: ReadPart[]): Inline[] {
  const inside = new Flow(reader.newId);
  readBlock(cell, inside, reader, cell.name === 'th' ? [{ type: 'bold' }] : []);
  return joined(
    inside.parts.flatMap((part): Inline[][] => {
      if (part.kind === 'block') return linesOfBlock(part.block);
      after.push(part);
      return [];
    }),
    ' ',
  );
}

function linesOfBlock(block: Extract<ReadPart, { readonly kind: 'block' }>['block']): Inline[][] {
  return kindOf(block)
    .words(block)
    .map((line) => [...(line ?? [])]);
}

/** Elements that no kind of block reads. */
const OTHERS: Readonly<Record<string, ReadElement>> = {
  script: (_node, flow, reader) => reader.leave('program', flow),
  br: (_node, flow) => flow.break(),
  ...names('img picture', readPicture),
  ...names('iframe frame video audio object embed', (node, flow) =>
    flow.put({ kind: 'embed', code: codeOf(node) }),
  ),
  ...names('svg canvas math', (_node, flow, reader) => {
    reader.leave('drawing', flow);
    flow.endParagraph();
  }),
  ...names('input select textarea button meter progress', (_node, flow, reader) =>
    reader.leave('form', flow),
  ),
  table: readTable,
  dt: (node, flow, reader, marks) => readBlock(node, flow, reader, withMark(marks, { type: 'bold' })),
  ...names(
    'address article body caption center dd div dl fieldset figcaption figure footer form header hgroup html legend li main nav p section summary',
    readBlock,
  ),
};

const READS: ReadonlyMap<string, ReadElement> = new Map(
  [OTHERS, ...ALL_KINDS.map(({ reads }) => reads ?? {})].flatMap((reads) => Object.entries(reads)),
);

function readNode(node: HtmlNode, flow: Flow, reader: Reader, marks: Marks): void {
  if (typeof node === 'string') flow.text(node, marks);
  else if (!isSilent(node.name) && !isHidden(node)) {
    const read = READS.get(node.name);
    if (read) read(node, flow, reader, marks);
    else reader.readAll(node.children, flow, marksOf(node, marks));
  }
}

/** Lines in one, with a mark between them. */
function joined(lines: readonly Inline[][], between = ', '): Inline[] {
  return lines
    .filter((line) => line.length > 0)
    .flatMap((line, at) => (at > 0 ? [{ type: 'text' as const, text: between }, ...line] : line));
}

function rowsOf(table: HtmlElement): readonly HtmlElement[][] {
  const rows: HtmlElement[][] = [];
  for (const child of table.children) {
    if (typeof child === 'string') continue;
    if (child.name === 'tr')
      rows.push(
        child.children.filter(
          (cell): cell is HtmlElement => typeof cell !== 'string' && /^t[dh]$/.test(cell.name),
        ),
      );
    else if (/^t(?:head|body|foot)$/.test(child.name)) rows.push(...rowsOf(child));
  }
  return rows;
}

function isHidden(node: HtmlElement): boolean {
  const style = attribute(node, 'style');
  return (
    node.attributes.some(({ name }) => name === 'hidden') ||
    (style !== '' && /display\s{0,9}:\s{0,9}none/i.test(style.slice(0, 2000)))
  );
}

/** A dot that counts readers, or holds a table open, is no picture. */
function isDot(image: HtmlElement): boolean {
  const [width, height] = ['width', 'height'].map((name) => Number(attribute(image, name)));
  return Boolean(width && height && width <= 2 && height <= 2);
}

/** The code of a framed thing with what belongs to it, as it is handed to whoever reads pasted code. */
function codeOf(node: HtmlElement): string {
  const attributes = node.attributes.map(({ name, value }) => ` ${name}="${escapeHtml(value)}"`).join('');
  const inside = node.children
    .map((child) =>
      typeof child !== 'string' && /^(?:source|track|param|embed|object)$/.test(child.name)
        ? codeOf(child)
        : '',
    )
    .join('');
  return `<${node.name}${attributes}>${inside}</${node.name}>`;
}
