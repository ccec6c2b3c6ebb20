import { parse } from 'parse5';
import { escapeHtml } from '../page/escape.ts';
import { attribute, type HtmlElement, type HtmlNode, textOf } from '../page/html-tree.ts';
import { treeOfParsed } from '../page/parsed-tree.ts';
import { declarationsOf, type Filter } from './filter.ts';

/**
 * One element as pages are written with it, sent to a site to see what comes of it. The attributes and properties are those that
 * pages go out with (a test holds the writer to it).
 */
interface Sample {
  readonly element: string;
  readonly attributes?: Readonly<Record<string, string>>;
  readonly styles?: Readonly<Record<string, string>>;
  /** Where it may stand; `own` is the element. */
  readonly around?: (own: string) => string;
  /** The element round it, without which nothing is learned of it. */
  readonly within?: string;
  /** Whether it has no content, so that it is looked for between two words. */
  readonly isVoid?: boolean;
}

const SIDE = { float: 'left', clear: 'left', width: '45%', 'max-width': '100%', margin: '4px 22px 12px 0' };
const CELL = {
  'border-bottom': '1px solid #c6cfd2',
  padding: '6px 12px 6px 0',
  'text-align': 'left',
  'vertical-align': 'top',
};
const inTable = (own: string) => `<table><tbody><tr>${own}</tr></tbody></table>`;

/** Inside first where one stands in another: what goes with what is round it tells nothing of itself. */
const SAMPLES: readonly Sample[] = [
  { element: 'p', attributes: { class: 'small', lang: 'fr' } },
  {
    element: 'div',
    attributes: {
      class: 'cards',
      role: 'region',
      'aria-label': 'Tides',
      tabindex: '0',
      'data-part': 'tides',
    },
    styles: {
      clear: 'both',
      margin: '12px 0',
      'overflow-x': 'auto',
      display: 'flex',
      'flex-wrap': 'wrap',
      gap: '22px',
      flex: '1 1 200px',
      'min-width': '0',
    },
  },
  ...[2, 3, 4].map((level): Sample => ({ element: `h${level}`, attributes: { id: `tides-${level}` } })),
  ...['strong', 'em', 'small', 'sub', 'sup', 'code'].map(
    (element): Sample => ({ element, around: (own) => `<p>Words ${own}.</p>`, within: 'p' }),
  ),
  {
    element: 'abbr',
    attributes: { title: 'Royal' },
    around: (own) => `<p>Words ${own}.</p>`,
    within: 'p',
  },
  {
    element: 'span',
    attributes: { class: 'credit', lang: 'de' },
    around: (own) => `<p>Words ${own}.</p>`,
    within: 'p',
  },
  {
    element: 'a',
    attributes: {
      class: 'button',
      href: 'https://www.example.org/tides',
      rel: 'license noopener',
      target: '_blank',
      property: 'license',
    },
    around: (own) => `<p>Words ${own}.</p>`,
    within: 'p',
  },
  {
    element: 'ul',
    attributes: { class: 'gallery' },
    styles: {
      clear: 'both',
      'list-style': 'none',
      padding: '0',
      margin: '0',
      display: 'flex',
      'flex-wrap': 'wrap',
      gap: '8px',
      'align-items': 'flex-start',
    },
    around: (own) => own.replace(/>(\w+)</, '><li>$1</li><'),
  },
  {
    element: 'ol',
    attributes: { start: '3' },
    around: (own) => own.replace(/>(\w+)</, '><li>$1</li><'),
  },
  {
    element: 'li',
    attributes: { class: 'item' },
    styles: { flex: '1 1 200px', margin: '0', width: '50%' },
    around: (own) => `<ul>${own}</ul>`,
    within: 'ul',
  },
  {
    element: 'blockquote',
    attributes: { class: 'quotation', cite: 'https://www.example.org/said' },
    styles: { margin: '12px 0', 'padding-left': '16px', 'border-left': '3px solid #172126' },
  },
  {
    element: 'pre',
    attributes: { class: 'code', tabindex: '0' },
    styles: { 'overflow-x': 'auto', padding: '12px', border: '1px solid #c6cfd2', font: '14px monospace' },
  },
  {
    element: 'aside',
    attributes: { class: 'box', 'aria-label': 'Tides' },
    styles: {
      ...SIDE,
      padding: '12px',
      border: '1px solid #c6cfd2',
      'box-sizing': 'border-box',
    },
  },
  {
    element: 'nav',
    attributes: { class: 'contents', 'aria-label': 'Contents' },
    styles: { margin: '12px 0' },
  },
  {
    element: 'details',
    attributes: { class: 'folded' },
    styles: { clear: 'both', margin: '12px 0' },
    around: (own) => own.replace(/>(\w+)</, '><summary>More</summary><p>$1</p><'),
  },
  { element: 'summary', around: (own) => `<details>${own}<p>Words.</p></details>`, within: 'details' },
  {
    element: 'table',
    styles: {
      width: '100%',
      'min-width': '100%',
      'max-width': 'none',
      'border-collapse': 'collapse',
      'font-size': '16px',
      'line-height': '1.4',
    },
    around: (own) => own.replace(/>(\w+)</, '><tbody><tr><td>$1</td></tr></tbody><'),
  },
  {
    element: 'caption',
    styles: { 'text-align': 'left', padding: '0 0 6px', 'font-weight': '600' },
    around: (own) => `<table>${own}<tbody><tr><td>4.1</td></tr></tbody></table>`,
    within: 'table',
  },
  {
    element: 'th',
    attributes: { scope: 'col', colspan: '1' },
    styles: CELL,
    around: inTable,
    within: 'table',
  },
  {
    element: 'td',
    attributes: { colspan: '1', rowspan: '1' },
    styles: CELL,
    around: inTable,
    within: 'table',
  },
  {
    element: 'figure',
    attributes: { class: 'picture', vocab: 'https://schema.org/', typeof: 'ImageObject', resource: '#one' },
    styles: { ...SIDE, 'padding-left': '0', 'border-left': '0 solid #172126' },
    around: (own) => own.replace(/>(\w+)</, '><p>$1</p><'),
  },
  {
    element: 'figcaption',
    styles: { 'font-size': '14px', 'line-height': '1.4', 'padding-top': '6px' },
    around: (own) => `<figure><p>Words.</p>${own}</figure>`,
    within: 'figure',
  },
  {
    element: 'hr',
    attributes: { class: 'rule' },
    styles: { clear: 'both', border: '0', 'border-top': '1px solid #172126', margin: '22px 0' },
    isVoid: true,
  },
];

/** The picture of the probe, by the address that its file was given. */
const pictures = (src: string): readonly Sample[] => [
  {
    element: 'img',
    attributes: {
      src,
      srcset: `${src} 8w`,
      sizes: '(max-width: 480px) 100vw, 8px',
      width: '8',
      height: '6',
      alt: 'A grey ground.',
      loading: 'lazy',
      decoding: 'async',
    },
    styles: {
      display: 'block',
      width: '100%',
      height: 'auto',
      float: 'left',
      clear: 'left',
      'max-width': '100%',
      margin: '4px 22px 12px 0',
      outline: '1px solid #172126',
      'outline-offset': '-1px',
      'border-radius': '6px',
      'box-shadow': '0 1px 3px #172126',
      filter: 'sepia(0.4)',
    },
    isVoid: true,
  },
  {
    element: 'picture',
    around: () =>
      `<picture><source type="image/png" srcset="${escapeHtml(src)} 8w" sizes="8px"><img src="${escapeHtml(src)}" width="8" height="6" alt="The same ground."></picture>`,
    isVoid: true,
  },
  {
    element: 'source',
    attributes: { type: 'image/png', srcset: `${src} 8w`, sizes: '8px' },
    around: (own) =>
      `<picture>${own}<img src="${escapeHtml(src)}" width="8" height="6" alt="Once more the same ground."></picture>`,
    isVoid: true,
  },
];

/** Players that play nothing: whether they are kept is all that is asked. */
const players = (src: string): readonly Sample[] => [
  {
    element: 'video',
    attributes: {
      controls: '',
      preload: 'metadata',
      crossorigin: 'anonymous',
      'aria-label': 'A grey ground that moves.',
      width: '8',
      height: '6',
      poster: src,
    },
    styles: { display: 'block', 'aspect-ratio': '8 / 6', width: '100%', height: 'auto' },
    isVoid: true,
  },
  {
    element: 'audio',
    attributes: { controls: '', preload: 'metadata', 'aria-label': 'A silence.' },
    styles: { width: '100%' },
    isVoid: true,
  },
  {
    element: 'track',
    attributes: { kind: 'captions', src, srclang: 'en', label: 'English' },
    around: (own) => `<video controls>${own}</video>`,
    within: 'video',
    isVoid: true,
  },
];

const frameOf = (src: string): Sample => ({
  element: 'iframe',
  attributes: { src, title: 'A frame', width: '320', height: '180', loading: 'lazy' },
  isVoid: true,
});

const word = (at: number, end = ''): string => `placardprobe${at}${end}x`;

/** What is sent as a probe: where the file of its picture is found, and the addresses whose frames are tried. */
export interface ProbeOf {
  readonly picture: string;
  readonly frames: readonly string[];
}

const samplesOf = ({ picture, frames }: ProbeOf): readonly Sample[] => [
  ...SAMPLES,
  ...pictures(picture),
  ...players(picture),
  ...frames.map(frameOf),
];

/** A page that holds one of each thing that pages go out with, in words that only a probe has. */
export function probeHtml(of: ProbeOf): string {
  const first = `<p>${word(0)} This page asks what a site keeps. It may be removed.</p>`;
  return [first, ...samplesOf(of).map(writeSample)].join('\n');
}

/** Without words of their own, and yet with an end. */
const CLOSED: ReadonlySet<string> = new Set(['iframe', 'video', 'audio']);

function writeSample(sample: Sample, index: number): string {
  const { element, attributes = {}, styles = {}, around = (own) => own, isVoid = false } = sample;
  const style = Object.entries(styles)
    .map(([property, value]) => `${property}:${value}`)
    .join(';');
  const said = [...Object.entries(attributes), ...(style === '' ? [] : [['style', style] as const])]
    .map(([name, value]) => ` ${name}="${escapeHtml(value)}"`)
    .join('');
  const at = index + 1;
  if (!isVoid) return around(`<${element}${said}>${word(at)}</${element}>`);
  return `<p>${word(at)}</p>\n${around(`<${element}${said}>${CLOSED.has(element) ? `</${element}>` : ''}`)}\n<p>${word(at, 'end')}</p>`;
}

/** What a probe has taught of a site. */
export interface Learned {
  readonly filter: Filter;
  /** The addresses whose frames came through. */
  readonly frames: readonly string[];
}

/**
 * What a site does not keep, by the document in which the probe stands there; null where it does not stand in it. What stood in
 * something that went with all its content is not judged. Linear in the document.
 */
export function learnFilter(html: string, of: ProbeOf): Learned | null {
  const there = lookThrough(treeOfParsed(parse(html).childNodes));
  if (!there.words.has(word(0))) return null;
  const samples = samplesOf(of);
  const outcomes = samples.map((sample, index) => outcomeOf(sample, index + 1, there));
  const dropped = new Set<string>();
  const unwrapped = new Set<string>();
  const asked: Asked = { attributes: new Map(), styles: new Map() };
  const frames: string[] = [];
  for (const [index, outcome] of outcomes.entries()) {
    const sample = samples[index];
    if (!sample) continue;
    const { element, within, attributes = {}, styles = {} } = sample;
    if (element === 'iframe') {
      if (outcome.kind === 'kept') frames.push(attributes.src ?? '');
      continue;
    }
    if (outcome.kind === 'unknown' || (within !== undefined && dropped.has(within))) continue;
    if (outcome.kind === 'kept') {
      note(asked.attributes, element, Object.keys(attributes), (name) => hasAttribute(outcome.node, name));
      noteStyles(asked, element, Object.keys(styles), outcome.node);
    } else (outcome.kind === 'dropped' ? dropped : unwrapped).add(element);
  }
  return {
    filter: {
      unwrapped: [...unwrapped],
      dropped: [...dropped],
      attributes: lostOf(asked.attributes),
      styles: lostOf(asked.styles),
    },
    frames,
  };
}

/** Of each attribute or property, on which elements it came through and on which it did not. */
type Answers = Map<string, { readonly kept: string[]; readonly lost: string[] }>;
interface Asked {
  readonly attributes: Answers;
  readonly styles: Answers;
}

function note(
  answers: Answers,
  element: string,
  names: readonly string[],
  isKept: (name: string) => boolean,
): void {
  for (const name of names) {
    const answer = answers.get(name) ?? { kept: [], lost: [] };
    answers.set(name, answer);
    (isKept(name) ? answer.kept : answer.lost).push(element);
  }
}

/** A style that goes as a whole is an attribute that goes. */
function noteStyles(asked: Asked, element: string, properties: readonly string[], node: HtmlElement): void {
  if (properties.length === 0) return;
  note(asked.attributes, element, ['style'], (name) => hasAttribute(node, name));
  if (!hasAttribute(node, 'style')) return;
  const kept = new Set(declarationsOf(attribute(node, 'style')).map(({ property }) => property));
  // A site may write the short form for the long one, or the other way round.
  note(asked.styles, element, properties, (name) =>
    [...kept].some((one) => one === name || name.startsWith(`${one}-`) || one.startsWith(`${name}-`)),
  );
}

const hasAttribute = ({ attributes }: HtmlElement, name: string): boolean =>
  attributes.some((one) => one.name === name);

/** What went everywhere is named alone, what went on some elements with each of them. */
function lostOf(answers: Answers): string[] {
  return [...answers].flatMap(([name, { kept, lost }]) =>
    lost.length === 0
      ? []
      : kept.length === 0 && lost.length > 1
        ? [name]
        : [...new Set(lost)].map((one) => `${one} ${name}`),
  );
}

type Outcome =
  | { readonly kind: 'kept'; readonly node: HtmlElement }
  | { readonly kind: 'unwrapped' | 'dropped' | 'unknown' };

function outcomeOf({ element, isVoid = false, attributes = {} }: Sample, at: number, there: There): Outcome {
  const from = there.words.get(word(at));
  if (!isVoid) {
    if (!from) return { kind: 'dropped' };
    const node = from.ancestors.find(({ name }) => name === element);
    return node ? { kind: 'kept', node } : { kind: 'unwrapped' };
  }
  const to = there.words.get(word(at, 'end'));
  if (!from || !to) return { kind: 'unknown' };
  const between = there.elements.slice(from.elementsBefore, to.elementsBefore);
  const node = between.find(
    ({ name, attributes: own }) =>
      name === element &&
      (element !== 'iframe' || own.some((one) => one.name === 'src' && one.value === attributes.src)),
  );
  if (node) return { kind: 'kept', node };
  return {
    kind: element === 'picture' && between.some(({ name }) => name === 'img') ? 'unwrapped' : 'dropped',
  };
}

interface Place {
  /** The nearest first. */
  readonly ancestors: readonly HtmlElement[];
  readonly elementsBefore: number;
}
interface There {
  readonly words: ReadonlyMap<string, Place>;
  /** All of them, in their order. */
  readonly elements: readonly HtmlElement[];
}

/** Where the words of the probe stand. A tree is at most `TREE_DEPTH` deep, so that it is gone through by calling itself. */
function lookThrough(nodes: readonly HtmlNode[]): There {
  const words = new Map<string, Place>();
  const elements: HtmlElement[] = [];
  const look = (node: HtmlNode, ancestors: readonly HtmlElement[]) => {
    if (typeof node === 'string') {
      for (const [found] of node.matchAll(/placardprobe\d{1,4}(?:end)?x/g))
        if (!words.has(found)) words.set(found, { ancestors, elementsBefore: elements.length });
      return;
    }
    if (node.name === 'title' && textOf(node) !== '') return;
    elements.push(node);
    for (const child of node.children) look(child, [node, ...ancestors]);
  };
  for (const node of nodes) look(node, []);
  return { words, elements };
}
