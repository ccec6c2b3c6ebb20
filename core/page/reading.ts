import type { Block } from './blocks/block.ts';
import type { HeadingLevel } from './blocks/heading/schema.ts';
import type { KnownPlacement } from './blocks/placement/sign.ts';
import type { HtmlElement, HtmlNode } from './html-tree.ts';
import { folded, type Inline, isBlank, type Mark } from './inline.ts';
import type { LeftOutCode } from './left-out.ts';
import type { OfferedPicture } from './rich-pasted.ts';

/** One thing that was read, in its place. */
export type ReadPart =
  | { readonly kind: 'block'; readonly block: Block }
  /** A picture, to be taken in where it stands. */
  | { readonly kind: 'picture'; readonly offered: OfferedPicture }
  /** Code of something framed or played, to be read as any pasted code is. */
  | { readonly kind: 'embed'; readonly code: string };

export type Marks = readonly Mark[];

/** What reads a tree of HTML, as the kinds of blocks ask it to read what stands in their elements. */
export interface Reader {
  /** An ID for a block that is read; each once. */
  readonly newId: () => string;
  /** Says that something did not come along as it was, and where it stood. */
  readonly leave: (code: LeftOutCode, flow: Flow, words?: string) => void;
  /** The placement that a sign in source stands for; null where nobody knows it. */
  readonly placed: (id: string) => KnownPlacement | null;
  /** The blocks that are headings by how they stand (`headings-by-look.ts`), each with its level. */
  readonly headings: ReadonlyMap<HtmlElement, HeadingLevel>;
  readonly read: (node: HtmlNode, flow: Flow, marks: Marks) => void;
  /** The runs of words that a block says itself. */
  readonly wordsOf: (block: Block) => readonly (readonly Inline[])[];
  readonly readAll: (nodes: readonly HtmlNode[], flow: Flow, marks: Marks) => void;
}

/** Reads one element into the flow. */
export type ReadElement = (node: HtmlElement, flow: Flow, reader: Reader, marks: Marks) => void;

/** So many parts back words are looked for: pictures and frames in a row have none. */
const PARTS_ASKED = 20;

/** Text on its way into blocks: what stands in a line, and the blocks that are whole. */
export class Flow {
  readonly parts: ReadPart[] = [];
  readonly #newId: () => string;
  #inlines: Inline[] = [];

  constructor(newId: () => string) {
    this.#newId = newId;
  }

  text(said: string, marks: Marks): void {
    if (said === '') return;
    this.#inlines.push({ type: 'text', text: said, ...(marks.length > 0 ? { marks: [...marks] } : {}) });
  }

  break(): void {
    this.#inlines.push({ type: 'hardBreak' });
  }

  endParagraph(): void {
    const content = this.takeInlines();
    if (content.length > 0) this.#push({ type: 'paragraph', attrs: { id: this.#newId() }, content });
  }

  /** What stands in the line, without blanks and breaks at its ends. */
  takeInlines(): Inline[] {
    const content = folded(this.#inlines);
    this.#inlines = [];
    return isBlank(content) ? [] : content;
  }

  putBlock(block: Block): void {
    this.endParagraph();
    this.#push(block);
  }

  put(part: ReadPart): void {
    this.endParagraph();
    this.parts.push(part);
  }

  #push(block: Block): void {
    this.parts.push({ kind: 'block', block });
  }

  /** The words read last, by which a place is known to whoever reads of it; empty at the beginning. */
  lastWords(): string {
    const here = plainOf(this.#inlines);
    if (here.trim() !== '') return here;
    for (const part of this.parts.slice(-PARTS_ASKED).reverse()) {
      const words = part.kind === 'block' && 'content' in part.block ? plainOf(part.block.content) : '';
      if (words.trim() !== '') return words;
    }
    return '';
  }
}

/** All text in stored content, however deep. */
function plainOf(content: readonly unknown[] | undefined): string {
  return (content ?? [])
    .map((node) => {
      if (typeof node !== 'object' || node === null) return '';
      if ('text' in node && typeof node.text === 'string') return node.text;
      return 'content' in node && Array.isArray(node.content) ? `${plainOf(node.content)} ` : ' ';
    })
    .join('');
}
