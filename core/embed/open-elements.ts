import type { Stretch, Tag } from './markup.ts';
import { type SaidSize, shapesOfSheet, sizeOf } from './said-size.ts';

/** An element whose end has not come yet. */
export interface OpenElement {
  readonly tag: Tag;
  /** How many things were found before it. */
  readonly candidates: number;
}

interface Entry extends OpenElement {
  /** Where its caption stands, for a figure. */
  caption: Stretch | null;
}

/** What is nested deeper is taken for a part of what it is nested in. */
const MOST_OPEN = 60;

/** Elements without an end of their own (HTML, void elements), and those whose end is left out more often than not. */
const NEVER_OPEN = new Set(
  'area base br col embed hr img input link meta param source track wbr p li td tr th option script style'.split(
    ' ',
  ),
);

/** The elements that are open at one place of markup in any condition. Each step costs no more than `MOST_OPEN`. */
export class OpenElements {
  readonly #open: Entry[] = [];
  #shapes: ReadonlyMap<string, number> = new Map();

  /** The shapes that the sheets of styles read so far give to classes. */
  get shapes(): ReadonlyMap<string, number> {
    return this.#shapes;
  }

  learn(css: string): void {
    this.#shapes = new Map([...this.#shapes, ...shapesOfSheet(css)]);
  }

  push(tag: Tag, candidates: number): void {
    if (this.#open.length < MOST_OPEN && !NEVER_OPEN.has(tag.name))
      this.#open.push({ tag, candidates, caption: null });
  }

  /** Closes what an end tag closes, the innermost first; nothing where it has no start. */
  pop({ name, from }: Tag): readonly { readonly element: OpenElement; readonly caption: Stretch | null }[] {
    const at = this.#open.findLastIndex(({ tag }) => tag.name === name);
    return at < 0 ? [] : this.#close(at, from);
  }

  popAll(to: number): readonly { readonly element: OpenElement; readonly caption: Stretch | null }[] {
    return this.#close(0, to);
  }

  #close(from: number, to: number) {
    const closed = this.#open.splice(from).reverse();
    for (const { tag } of closed) {
      // What is a caption says so of the figure about it, whichever element a page writes it in.
      if (!isCaption(tag)) continue;
      const figure =
        this.#open.findLast((one) => isFigure(one.tag)) ?? closed.find((one) => isFigure(one.tag));
      if (figure) figure.caption ??= { from: tag.to, to };
    }
    return closed.map((element) => ({ element, caption: element.caption }));
  }

  nearest(name: string): OpenElement | undefined {
    return this.#open.findLast(({ tag }) => tag.name === name);
  }

  /** The size of the nearest box about an element that says one, for what fills it; `own` where none does. */
  boxOf(inside: Tag, own: SaidSize): SaidSize {
    for (const { tag } of [...this.#open].reverse()) {
      if (tag === inside) continue;
      const said = sizeOf(tag, this.#shapes);
      if (said.heightPercent !== null) return { ...own, heightPercent: said.heightPercent };
      if (own.width === null && own.height === null && said.width !== null && said.height !== null)
        return said;
    }
    return own;
  }
}

const isFigure = ({ name }: Tag) => name === 'figure';
const isCaption = ({ name }: Tag) => name === 'figcaption';
