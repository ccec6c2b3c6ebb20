import { isLayoutTable } from '../page/blocks/table/read.ts';
import { attribute, elementsIn, type HtmlElement, type HtmlNode, textOf } from '../page/html-tree.ts';
import { type Fault, MOST_SPOTS } from './fault.ts';
import { spotOf } from './spots.ts';

/** Elements that HTML has given up (WHATWG HTML, 16.2), but for the frames and players, which are read as what they show. */
const OBSOLETE: ReadonlySet<string> = new Set(
  'acronym basefont bgsound big blink center dir font marquee nobr spacer strike tt multicol listing xmp plaintext'.split(
    ' ',
  ),
);

/** Attributes that only say how something looks, and that HTML has given up on all elements but those of drawings. */
const OBSOLETE_ATTRIBUTES: ReadonlySet<string> = new Set(
  'align alink background bgcolor border bordercolor cellpadding cellspacing clear color face hspace link marginheight marginwidth noshade nowrap text valign vlink vspace'.split(
    ' ',
  ),
);
const MOST_NAMES = 6;

/** Marked once each, with the first places. */
class Tally {
  count = 0;
  readonly spots: number[] = [];
  readonly names = new Set<string>();

  add(node: HtmlElement, name = ''): void {
    this.count += 1;
    if (this.spots.length < MOST_SPOTS) this.spots.push(spotOf(node));
    if (name !== '' && this.names.size < MOST_NAMES) this.names.add(name);
  }
}

/** The faults of the HTML itself: how it is written, laid out and spaced. Linear in the tree. */
export function treeFaults(nodes: readonly HtmlNode[]): readonly Fault[] {
  const [tables, spacing, obsolete, styles, forms] = [
    new Tally(),
    new Tally(),
    new Tally(),
    new Tally(),
    new Tally(),
  ];
  for (const root of nodes)
    for (const node of elementsIn(root)) {
      const { name } = node;
      if (name === 'table' && isLayoutTable(node)) tables.add(node);
      if (name === 'form') forms.add(node);
      if (isSpacing(node)) spacing.add(node);
      if (OBSOLETE.has(name)) obsolete.add(node, name);
      else {
        const given = node.attributes.find((one) => OBSOLETE_ATTRIBUTES.has(one.name))?.name;
        if (given !== undefined) obsolete.add(node, given);
      }
      if (attribute(node, 'style').trim() !== '') styles.add(node);
    }
  return [
    ...some(tables, ({ count, spots }) => ({ code: 'layout-table', values: { count }, spots })),
    ...some(spacing, ({ count, spots }) => ({ code: 'spacing', values: { count }, spots })),
    ...some(obsolete, ({ count, spots, names }) => ({
      code: 'obsolete',
      values: { count, names: [...names] },
      spots,
    })),
    ...some(styles, ({ count, spots }) => ({ code: 'inline-style', values: { count }, spots })),
    ...some(forms, ({ count, spots }) => ({ code: 'form', values: { count }, spots })),
  ];
}

const some = (tally: Tally, fault: (tally: Tally) => Fault): readonly Fault[] =>
  tally.count === 0 ? [] : [fault(tally)];

/** A paragraph that says nothing, or a line broken where one was broken just before. */
function isSpacing(node: HtmlElement): boolean {
  return (node.name === 'p' && isEmptyText(node)) || doubleBreak(node);
}

const isEmptyText = (node: HtmlElement): boolean =>
  textOf(node).trim() === '' && node.children.every((child) => typeof child === 'string' || isVoid(child));

const isVoid = ({ name, children }: HtmlElement): boolean =>
  name === 'br' ||
  (/^(?:font|span|b|i|strong|em|a)$/.test(name) &&
    children.every((child) => typeof child === 'string' || isVoid(child)));

/** Whether lines are broken twice in a row in it. */
function doubleBreak({ name, children }: HtmlElement): boolean {
  if (name === 'pre') return false;
  let isAfterBreak = false;
  for (const child of children) {
    if (typeof child === 'string') {
      if (child.trim() !== '') isAfterBreak = false;
    } else {
      if (child.name === 'br' && isAfterBreak) return true;
      isAfterBreak = child.name === 'br';
    }
  }
  return false;
}
