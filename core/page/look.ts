import { declaredIn } from './declared.ts';
import { attribute, type HtmlElement, type HtmlNode } from './html-tree.ts';
import { isRemark, isStruck } from './remarks.ts';
import { isSilent } from './silent.ts';

/** How words look where they come from, as far as a page of Placard leaves that to the site's style sheet. */
export interface Look {
  /** The first family that is named; empty where none is. */
  readonly font: string;
  /** CSS pixels; 0 where nothing is said. */
  readonly size: number;
  /** As it is written there, in small letters; empty where none is said. */
  readonly colour: string;
  readonly background: string;
  readonly align: 'centre' | 'right' | '';
  readonly underlined: boolean;
  readonly bold: boolean;
}

/** Words of one look, and the element that stands as a block round them. */
export interface SeenWords {
  readonly text: string;
  readonly look: Look;
  readonly block: HtmlElement | null;
  /** What they stand in that has a look of its own on every site, so that theirs says nothing. */
  readonly within: 'heading' | 'link' | null;
}

const PLAIN: Look = {
  font: '',
  size: 0,
  colour: '',
  background: '',
  align: '',
  underlined: false,
  bold: false,
};

const BLOCKS = new Set(
  'address article aside blockquote body caption center dd details div dl dt fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header li main nav ol p pre section table tbody td tfoot th thead tr ul'.split(
    ' ',
  ),
);

export const isBlockElement = (name: string): boolean => BLOCKS.has(name);

/** All words of some nodes in their order, as they look there. Linear in the nodes. */
export function seenWords(nodes: readonly HtmlNode[]): readonly SeenWords[] {
  const seen: SeenWords[] = [];
  for (const node of nodes) walk(node, { look: PLAIN, block: null, within: null }, seen);
  return seen;
}

/** What does not come along, and what keeps its look as code. */
const isLeft = (node: HtmlElement) => node.name === 'pre' || isStruck(node) || isRemark(node);

type Around = Pick<SeenWords, 'look' | 'block' | 'within'>;

function walk(node: HtmlNode, around: Around, seen: SeenWords[]): void {
  if (typeof node === 'string') {
    if (node.trim() !== '') seen.push({ text: node, ...around });
    return;
  }
  // Two lines are no one word.
  if (node.name === 'br' && seen.length > 0) seen.push({ text: ' ', ...around });
  if (isSilent(node.name) || isLeft(node)) return;
  const inside: Around = {
    look: lookIn(node, around.look),
    block: isBlockElement(node.name) ? node : around.block,
    within: withinOf(node) ?? around.within,
  };
  for (const child of node.children) walk(child, inside, seen);
}

function withinOf({ name }: HtmlElement): SeenWords['within'] {
  if (/^h[1-6]$/.test(name)) return 'heading';
  return name === 'a' ? 'link' : null;
}

/** How words in an element look, of how they looked round it (CSS 2.2, 6.2; HTML, 15.3). */
function lookIn(node: HtmlElement, around: Look): Look {
  if (node.attributes.length === 0 && !LOOKS.has(node.name)) return around;
  const declared = declaredIn(node);
  // Of the shorthand, the size and the families behind it (CSS Fonts 4, 2.7).
  const short = /(?:^|\s)(\d[\d.]{0,8}(?:px|pt|em|rem|%))(?:\/\S{1,20})?\s+(.+)$/i.exec(
    declared.get('font') ?? '',
  );
  const line = declared.get('text-decoration') ?? declared.get('text-decoration-line') ?? '';
  return {
    font: fontOf(declared.get('font-family') ?? short?.[2] ?? attribute(node, 'face')) || around.font,
    size:
      sizeOf(declared.get('font-size') ?? short?.[1] ?? '', around.size) ||
      fontElementSize(node) ||
      around.size,
    colour: colourOf(declared.get('color') ?? attributeOf(node, 'color', 'font')) || around.colour,
    background: backgroundIn(node, declared) ?? around.background,
    align: alignIn(node, declared) ?? around.align,
    underlined: /\bunderline\b/i.test(line) || node.name === 'u' || around.underlined,
    bold: isBoldIn(node, declared, around.bold),
  };
}

/** Elements that have a look of their own, without any attribute. */
const LOOKS = new Set('b strong th h1 h2 h3 h4 h5 h6 u mark center'.split(' '));

/** Whether the words in an element are bold, of whether those round it are. */
export function isBoldIn(node: HtmlElement, declared: ReadonlyMap<string, string>, around: boolean): boolean {
  const shorthand = declared.get('font');
  const weight = declared.get('font-weight') ?? (shorthand && /\b(?:bold|[6-9]00)\b/i.exec(shorthand)?.[0]);
  if (weight) return /^(?:bold|bolder|[6-9]00)$/i.test(weight);
  return around || /^(?:b|strong|th|h[1-6])$/.test(node.name);
}

const attributeOf = (node: HtmlElement, name: string, element: string): string =>
  node.name === element ? attribute(node, name) : '';

function fontOf(families: string): string {
  const [first = ''] = families.split(',');
  return first
    .trim()
    .replace(/^["']|["']$/g, '')
    .slice(0, 60);
}

/** The steps of `font size` and of sizes by name (CSS Fonts 4, 2.5), in CSS pixels. */
const BY_STEP = [10, 13, 16, 18, 24, 32, 48];
const BY_NAME: Readonly<Record<string, number>> = {
  'xx-small': 9,
  'x-small': 10,
  small: 13,
  medium: 16,
  large: 18,
  'x-large': 24,
  'xx-large': 32,
};
const USUAL_SIZE = 16;

function sizeOf(said: string, around: number): number {
  const value = said.toLowerCase();
  const named = BY_NAME[value];
  if (named !== undefined) return named;
  const match = /^(\d{1,4}(?:\.\d{1,6})?)(px|pt|em|rem|%)/.exec(value);
  if (!match) return 0;
  const number = Number(match[1]);
  switch (match[2]) {
    case 'px':
      return number;
    case 'pt':
      return (number * 4) / 3;
    case 'rem':
      return number * USUAL_SIZE;
    case 'em':
      return number * (around || USUAL_SIZE);
    default:
      return (number / 100) * (around || USUAL_SIZE);
  }
}

function fontElementSize(node: HtmlElement): number {
  const said = attributeOf(node, 'size', 'font');
  if (said === '') return 0;
  const step = /^[+-]/.test(said) ? 3 + Number(said) : Number(said);
  return BY_STEP[Math.min(7, Math.max(1, step)) - 1] ?? 0;
}

/** Colours that say nothing of themselves: what the words would have anyway. */
const NO_COLOUR =
  /^(?:inherit|initial|unset|revert|currentcolor|windowtext|canvastext|auto|transparent|none)$/;

function colourOf(said: string): string {
  const value = said.trim().toLowerCase().slice(0, 60);
  return NO_COLOUR.test(value) ? '' : value;
}

const WHITE = /^(?:white|window|canvas|#fff(?:fff)?|rgba?\(255, ?255, ?255(?:, ?1)?\)|rgba\(.*, ?0\))$/;

/** What lies behind the words: null where an element says nothing of it, empty for white and for nothing. */
function backgroundIn(node: HtmlElement, declared: ReadonlyMap<string, string>): string | null {
  const said =
    declared.get('background-color') ?? declared.get('background') ?? attribute(node, 'bgcolor').trim();
  if (said === '') return node.name === 'mark' ? 'yellow' : null;
  const colour = colourOf(said);
  return WHITE.test(colour) || /^url\(/.test(colour) ? '' : colour;
}

function alignIn(node: HtmlElement, declared: ReadonlyMap<string, string>): Look['align'] | null {
  if (node.name === 'center') return 'centre';
  const said = (declared.get('text-align') ?? attribute(node, 'align')).toLowerCase();
  if (said === '' || node.name === 'img' || node.name === 'table') return null;
  if (said === 'center') return 'centre';
  return /^(?:right|end)$/.test(said) ? 'right' : '';
}

/** The look of most letters: what sets words apart is seen against it. */
export function commonLook(seen: readonly SeenWords[]): Look {
  const plain = seen.filter(({ within }) => within === null);
  return {
    font: commonest(plain, ({ font }) => font),
    size: commonest(plain, ({ size }) => size),
    colour: commonest(plain, ({ colour }) => colour),
    background: commonest(plain, ({ background }) => background),
    align: commonest(plain, ({ align }) => align),
    underlined: false,
    bold: commonest(plain, ({ bold }) => bold) ?? false,
  };
}

function commonest<T>(seen: readonly SeenWords[], of: (look: Look) => T): T {
  const letters = new Map<T, number>();
  for (const { text, look } of seen) letters.set(of(look), (letters.get(of(look)) ?? 0) + text.length);
  const [first] = [...letters].sort(([, one], [, other]) => other - one);
  return first ? first[0] : of(PLAIN);
}
