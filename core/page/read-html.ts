import { escapeHtml } from './escape.ts';
import { attribute, elementsIn, type HtmlElement, type HtmlNode, textOf } from './html-tree.ts';
import {
  type Block,
  type Inline,
  isLinkAddress,
  type List,
  type ListItem,
  type Mark,
  shallowList,
} from './model.ts';
import { type OfferedPicture, offeredPicture } from './rich-pasted.ts';

/** A block of text, as the page model holds it. */
type TextBlock = Exclude<Block, { readonly type: 'placement' }>;

/** One thing that was read, in its place. */
export type ReadPart =
  | { readonly kind: 'text'; readonly block: TextBlock }
  /** A picture, to be taken in where it stands. */
  | { readonly kind: 'picture'; readonly offered: OfferedPicture }
  /** Code of something framed or played, to be read as any pasted code is. */
  | { readonly kind: 'embed'; readonly code: string };

export interface HtmlReading {
  readonly parts: readonly ReadPart[];
  /** What did not come along as it was, each a sentence, each once. */
  readonly leftOut: readonly string[];
}

/**
 * Reads a tree of HTML into blocks of the page model by what its elements mean (WHATWG HTML, 4.3 to 4.5): text, headings
 * within a page's levels, lists, pictures and what is framed. Tables become lists of their rows until there are tables.
 * What the model cannot say is read as text, and said. Linear in the tree. Never runs, never loads anything.
 */
export function readHtml(nodes: readonly HtmlNode[]): HtmlReading {
  const reader = new HtmlReader();
  const flow = new Flow();
  for (const node of nodes) reader.read(node, flow, []);
  flow.endParagraph();
  return { parts: flow.parts, leftOut: [...reader.leftOut] };
}

const LEFT_OUT = {
  table: 'A table became a list of its rows.',
  quotation: 'A quotation became plain text.',
  line: 'A line across the page was left out.',
  form: 'Fields of a form were left out.',
  drawing: 'A drawing was left out.',
  program: 'Programs never come along.',
} as const;

const set = (names: string): ReadonlySet<string> => new Set(names.split(' '));

/** Says nothing to a reader. */
const SILENT = set(
  'head style meta link title base template colgroup col area source track param wbr noscript datalist',
);
const BOLD = set('b strong');
const ITALIC = set('i em cite dfn var');
const FRAMED = set('iframe frame video audio object embed');
const DRAWN = set('svg canvas math');
const FIELDS = set('input select textarea button meter progress');
const LISTS = set('ul ol menu dir');
const BLOCKS = set(
  'address article aside body center details dd div dl dt fieldset figcaption figure footer form header hgroup html legend main nav p section summary',
);
/** The levels of a page begin under its title. */
const HEADINGS: Readonly<Record<string, 2 | 3 | 4>> = { h1: 2, h2: 2, h3: 3, h4: 4, h5: 4, h6: 4 };

type Marks = readonly Mark[];

/** Text on its way into blocks: what stands in a line, and the blocks that are whole. */
class Flow {
  readonly parts: ReadPart[] = [];
  #inlines: Inline[] = [];

  text(said: string, marks: Marks): void {
    const text = said.replace(/[ \t\n\r\f]+/g, ' ');
    const last = this.#inlines.at(-1);
    const isAtEdge = !last || last.type === 'hardBreak' || last.text.endsWith(' ');
    const kept = isAtEdge ? text.replace(/^ /, '') : text;
    if (kept !== '')
      this.#inlines.push({ type: 'text', text: kept, ...(marks.length > 0 ? { marks: [...marks] } : {}) });
  }

  break(): void {
    this.#inlines.push({ type: 'hardBreak' });
  }

  endParagraph(): void {
    const content = this.takeInlines();
    if (content.length > 0) this.parts.push({ kind: 'text', block: { type: 'paragraph', content } });
  }

  /** What stands in the line, without blanks and breaks at its ends. */
  takeInlines(): Inline[] {
    const content = this.#inlines;
    this.#inlines = [];
    while (content.at(-1)?.type === 'hardBreak') content.pop();
    while (content[0]?.type === 'hardBreak') content.shift();
    const last = content.at(-1);
    if (last?.type === 'text') {
      const text = last.text.replace(/ +$/, '');
      if (text === '') content.pop();
      else content[content.length - 1] = { ...last, text };
    }
    return content.some((one) => one.type === 'text' && one.text.trim() !== '') ? content : [];
  }

  put(part: ReadPart): void {
    this.endParagraph();
    this.parts.push(part);
  }
}

class HtmlReader {
  readonly leftOut = new Set<string>();

  read(node: HtmlNode, flow: Flow, marks: Marks): void {
    if (typeof node === 'string') {
      flow.text(node, marks);
      return;
    }
    const { name } = node;
    if (SILENT.has(name) || isHidden(node)) return;
    if (name === 'script') this.leftOut.add(LEFT_OUT.program);
    else if (name === 'br') flow.break();
    else if (name === 'hr') this.#leave(LEFT_OUT.line, flow);
    else if (name === 'img' || name === 'picture') this.#picture(node, flow);
    else if (FRAMED.has(name)) flow.put({ kind: 'embed', code: codeOf(node) });
    else if (DRAWN.has(name)) this.#leave(LEFT_OUT.drawing, flow);
    else if (FIELDS.has(name)) this.leftOut.add(LEFT_OUT.form);
    else if (name in HEADINGS) this.#heading(node, flow);
    else if (LISTS.has(name)) this.#list(node, flow);
    else if (name === 'table') this.#table(node, flow);
    else if (name === 'pre') this.#lines(node, flow, marks);
    else if (name === 'blockquote') {
      this.leftOut.add(LEFT_OUT.quotation);
      this.#block(node, flow, marks);
    } else if (BLOCKS.has(name) || name === 'li' || name === 'caption')
      this.#block(node, flow, name === 'dt' ? withMark(marks, { type: 'bold' }) : marks);
    else this.#children(node, flow, marksOf(node, marks));
  }

  #children(node: HtmlElement, flow: Flow, marks: Marks): void {
    for (const child of node.children) this.read(child, flow, marks);
  }

  #block(node: HtmlElement, flow: Flow, marks: Marks): void {
    flow.endParagraph();
    this.#children(node, flow, marksOf(node, marks));
    flow.endParagraph();
  }

  #leave(why: string, flow: Flow): void {
    this.leftOut.add(why);
    flow.endParagraph();
  }

  #picture(node: HtmlElement, flow: Flow): void {
    const img = node.name === 'img' ? node : [...elementsIn(node)].find(({ name }) => name === 'img');
    if (!img || isDot(img)) return;
    const sources = node === img ? [] : [...elementsIn(node)].filter(({ name }) => name === 'source');
    flow.put({ kind: 'picture', offered: offeredPicture({ img, sources }) });
  }

  /** Its words in one line; what else stands in it comes behind. */
  #heading(node: HtmlElement, flow: Flow): void {
    flow.endParagraph();
    const inside = new Flow();
    this.#children(node, inside, []);
    const content = inside.takeInlines();
    const level = HEADINGS[node.name] ?? 4;
    const others = inside.parts.flatMap((part) => (part.kind === 'text' ? [] : [part]));
    const before = inside.parts.flatMap((part) =>
      part.kind === 'text' && part.block.type === 'paragraph' ? (part.block.content ?? []) : [],
    );
    const words = [...before, ...content];
    if (words.length > 0)
      flow.put({ kind: 'text', block: { type: 'heading', attrs: { level }, content: words } });
    for (const part of others) flow.put(part);
  }

  /** Pictures and what is framed have no place in a list: they come after it. */
  #list(node: HtmlElement, flow: Flow): void {
    const after: ReadPart[] = [];
    const list = this.#listOf(node, after);
    if (list.content.length > 0) flow.put({ kind: 'text', block: shallowList(list) });
    for (const part of after) flow.put(part);
  }

  #listOf(node: HtmlElement, after: ReadPart[]): List {
    const items: ListItem[] = [];
    for (const child of node.children) {
      if (typeof child === 'string' ? child.trim() === '' : SILENT.has(child.name)) continue;
      // A list that stands straight in a list belongs to the entry before it.
      const last = items.at(-1);
      if (typeof child !== 'string' && LISTS.has(child.name) && last)
        last.content.push(this.#listOf(child, after));
      else {
        const content = this.#itemOf(child, after);
        if (content.length > 0) items.push({ type: 'listItem', content });
      }
    }
    const start = Number.parseInt(attribute(node, 'start'), 10);
    return node.name === 'ol'
      ? { type: 'orderedList', ...(start > 1 ? { attrs: { start } } : {}), content: items }
      : { type: 'bulletList', content: items };
  }

  #itemOf(node: HtmlNode, after: ReadPart[]): ListItem['content'] {
    const inside = new Flow();
    if (typeof node === 'string') inside.text(node, []);
    else for (const child of node.children) this.read(child, inside, marksOf(node, []));
    inside.endParagraph();
    const content: ListItem['content'] = [];
    for (const part of inside.parts) {
      if (part.kind !== 'text') after.push(part);
      else if (part.block.type === 'heading') content.push(paragraph(part.block.content ?? []));
      else content.push(part.block);
    }
    // An entry begins with words, whatever stood in it.
    return content[0] && content[0].type !== 'paragraph' ? [{ type: 'paragraph' }, ...content] : content;
  }

  /** A table of one column or of one row only lays out what is in it; any other is said row by row. */
  #table(node: HtmlElement, flow: Flow): void {
    flow.endParagraph();
    const rows = rowsOf(node);
    const widest = Math.max(0, ...rows.map((cells) => cells.length));
    const isLayout = (widest < 2 || rows.length < 2) && !rows.flat().some(({ name }) => name === 'th');
    const caption = node.children.find((child) => typeof child !== 'string' && child.name === 'caption');
    if (caption) this.read(caption, flow, []);
    if (isLayout) {
      for (const cell of rows.flat()) this.#block(cell, flow, []);
      return;
    }
    this.leftOut.add(LEFT_OUT.table);
    const after: ReadPart[] = [];
    const items = rows.flatMap((cells): ListItem[] => {
      const content = joined(cells.map((cell) => this.#cell(cell, after)));
      return content.length > 0 ? [{ type: 'listItem', content: [paragraph(content)] }] : [];
    });
    if (items.length > 0) flow.put({ kind: 'text', block: { type: 'bulletList', content: items } });
    for (const part of after) flow.put(part);
  }

  /** What a cell says, in one line. */
  #cell(cell: HtmlElement, after: ReadPart[]): Inline[] {
    const inside = new Flow();
    this.#block(cell, inside, cell.name === 'th' ? [{ type: 'bold' }] : []);
    return joined(
      inside.parts.flatMap((part): Inline[][] => {
        if (part.kind !== 'text') {
          after.push(part);
          return [];
        }
        const { block } = part;
        return block.type === 'paragraph' || block.type === 'heading'
          ? [block.content ?? []]
          : linesOfList(block);
      }),
      ' ',
    );
  }

  /** Text whose lines are its own. */
  #lines(node: HtmlElement, flow: Flow, marks: Marks): void {
    flow.endParagraph();
    for (const [at, line] of textOf(node)
      .replace(/^\n|\s+$/g, '')
      .split('\n')
      .entries()) {
      if (at > 0) flow.break();
      flow.text(line, marks);
    }
    flow.endParagraph();
  }
}

function paragraph(content: Inline[]): { type: 'paragraph'; content: Inline[] } {
  return { type: 'paragraph', content };
}

/** Lines in one, with a mark between them. */
function joined(lines: readonly Inline[][], between = ', '): Inline[] {
  return lines
    .filter((line) => line.length > 0)
    .flatMap((line, at) => (at > 0 ? [{ type: 'text' as const, text: between }, ...line] : line));
}

function linesOfList(list: List): Inline[][] {
  return list.content.flatMap(({ content }) =>
    content.flatMap((part) => (part.type === 'paragraph' ? [part.content ?? []] : linesOfList(part))),
  );
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

function withMark(marks: Marks, mark: Mark): Marks {
  return marks.some(({ type }) => type === mark.type) ? marks : [...marks, mark];
}

/** The marks of what is in an element: by what it means, or by its style, as writing programs say it. */
function marksOf(node: HtmlElement, around: Marks): Marks {
  const style = attribute(node, 'style').slice(0, 2000);
  const weight = /font-weight\s{0,9}:\s{0,9}(\w{1,9})/i.exec(style)?.[1]?.toLowerCase();
  const isBold = weight ? /^(?:bold|bolder|[6-9]00)$/.test(weight) : BOLD.has(node.name);
  const slant = /font-style\s{0,9}:\s{0,9}(\w{1,9})/i.exec(style)?.[1]?.toLowerCase();
  const isItalic = slant ? slant !== 'normal' : ITALIC.has(node.name);
  const href = node.name === 'a' ? attribute(node, 'href').trim() : '';
  let marks = around;
  if (href !== '' && isLinkAddress(href)) marks = withMark(marks, { type: 'link', attrs: { href } });
  if (isBold) marks = withMark(marks, { type: 'bold' });
  return isItalic ? withMark(marks, { type: 'italic' }) : marks;
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
