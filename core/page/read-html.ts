import { readHeading } from './blocks/heading/read.ts';
import type { HeadingLevel } from './blocks/heading/schema.ts';
import { ALL_KINDS, kindOf } from './blocks/kinds.ts';
import { escapeHtml } from './escape.ts';
import { attribute, elementsIn, type HtmlElement, type HtmlNode, textOf } from './html-tree.ts';
import type { LeftOut } from './left-out.ts';
import { readBlock } from './read-block.ts';
import { isSaidByLink, marksOf, withMark } from './read-marks.ts';
import { Flow, type Marks, type ReadElement, type Reader, type ReadPart } from './reading.ts';
import { isRemark, isStruck } from './remarks.ts';
import { offeredPicture } from './rich-pasted.ts';
import { isSilent, withoutHidden } from './silent.ts';

export interface HtmlReading {
  readonly parts: readonly ReadPart[];
  /** What did not come along as it was, in reading order, with where it stood. */
  readonly leftOut: readonly LeftOut[];
}

/**
 * Reads a tree of HTML into blocks of the page model by what its elements mean (WHATWG HTML, 4.3 to 4.5): each kind of block
 * reads the elements that become one (`blocks/kinds.ts`), and the rest is read here. What the model cannot say is read as
 * text, and said. `newId` gives each block an ID. Linear in the tree. Never runs, never loads anything.
 */
export function readHtml(nodes: readonly HtmlNode[], newId: () => string): HtmlReading {
  return readSeen(withoutHidden(nodes), newId, NO_HEADINGS);
}

/**
 * The same for nodes without any that are hidden; `headings` are the blocks that are headings though no element says so, and
 * `placed` knows the pieces that signs of source stand for (`blocks/placement/sign.ts`).
 */
export function readSeen(
  nodes: readonly HtmlNode[],
  newId: () => string,
  headings: ReadonlyMap<HtmlElement, HeadingLevel>,
  placed: Reader['placed'] = () => null,
): HtmlReading {
  const leftOut: LeftOut[] = [];
  const flow = new Flow(newId);
  const reader: Reader = {
    newId,
    headings,
    placed,
    // An inner flow that is still empty stands where the outer one is.
    leave: (code, where, words = '') =>
      leftOut.push({ code, after: where.lastWords() || flow.lastWords(), words }),
    wordsOf: (block) =>
      kindOf(block)
        .words(block)
        .map((run) => run ?? []),
    read: (node, into, marks) => readNode(node, into, reader, marks),
    readAll: (some, into, marks) => {
      for (const node of some) readNode(node, into, reader, marks);
    },
  };
  reader.readAll(nodes, flow, []);
  flow.endParagraph();
  return { parts: flow.parts, leftOut };
}

const NO_HEADINGS: ReadonlyMap<HtmlElement, HeadingLevel> = new Map();

const names = (list: string, read: ReadElement) =>
  Object.fromEntries(list.split(' ').map((name) => [name, read]));

const readPicture: ReadElement = (node, flow, _reader, marks) => {
  const img = node.name === 'img' ? node : [...elementsIn(node)].find(({ name }) => name === 'img');
  if (!img || isDot(img)) return;
  if (isIcon(img)) {
    flow.text(attribute(img, 'alt'), marks);
    return;
  }
  const sources = node === img ? [] : [...elementsIn(node)].filter(({ name }) => name === 'source');
  flow.put({ kind: 'picture', offered: offeredPicture({ img, sources }) });
};

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
  dt: (node, flow, reader, marks) => readBlock(node, flow, reader, withMark(marks, { type: 'bold' })),
  ...names(
    'address article body caption center dd div dl fieldset figcaption figure footer form header hgroup html legend li main nav p section summary',
    readBlock,
  ),
};

/** By the name of an element, and by its name and a class where kinds share an element: "figure.gallery". */
const READS: ReadonlyMap<string, ReadElement> = new Map(
  [OTHERS, ...ALL_KINDS.map(({ reads }) => reads ?? {})].flatMap((reads) => Object.entries(reads)),
);

function readNode(node: HtmlNode, flow: Flow, reader: Reader, marks: Marks): void {
  if (typeof node === 'string') flow.text(node, marks);
  else if (!isSilent(node.name) && !isSaidByLink(node)) {
    if (isStruck(node)) leaveWords('struck', node, flow, reader);
    else if (isRemark(node)) leaveWords('remark', node, flow, reader);
    else {
      const read = isHeading(node, reader) ? readHeading : readerOf(node);
      if (read) read(node, flow, reader, marks);
      else reader.readAll(node.children, flow, marksOf(node, marks));
    }
  }
}

/** An element is asked for so many classes. */
const MOST_CLASSES = 20;

function readerOf(node: HtmlElement): ReadElement | undefined {
  const kind = attribute(node, 'class');
  const classes = kind === '' ? [] : kind.split(/\s+/, MOST_CLASSES);
  for (const one of classes) {
    const read = READS.get(`${node.name}.${one}`);
    if (read) return read;
  }
  return READS.get(node.name);
}

const isHeading = (node: HtmlElement, { headings }: Reader): boolean =>
  headings.has(node) || /^heading$/i.test(attribute(node, 'role').trim());

function leaveWords(code: 'struck' | 'remark', node: HtmlElement, flow: Flow, reader: Reader): void {
  const words = textOf(node).replace(/\s+/g, ' ').trim();
  if (words !== '') reader.leave(code, flow, words);
}

/** A dot that counts readers, or holds a table open, is no picture. */
const isDot = (image: HtmlElement): boolean => isWithin(image, 2);

/** A sign in a line of text, as in chats: what it says stands for it. */
const isIcon = (image: HtmlElement): boolean => isWithin(image, 24) && attribute(image, 'alt') !== '';

function isWithin(image: HtmlElement, pixels: number): boolean {
  const [width, height] = ['width', 'height'].map((name) => Number(attribute(image, name)));
  return Boolean(width && height && width <= pixels && height <= pixels);
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
