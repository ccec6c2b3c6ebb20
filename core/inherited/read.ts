import type { Hosts } from '../embed/host.ts';
import { readPagePictures } from '../gather/page-pictures.ts';
import type { Block } from '../page/blocks/block.ts';
import { attribute, elementsIn, type HtmlElement, textOf } from '../page/html-tree.ts';
import { plainText } from '../page/inline.ts';
import type { LeftOut } from '../page/left-out.ts';
import { treeOfParsed } from '../page/parsed-tree.ts';
import { readStyled } from '../page/read-brought.ts';
import { readHtml } from '../page/read-html.ts';
import type { ReadPart } from '../page/reading.ts';
import { styleRules, withRules } from '../page/style-rules.ts';
import { isFileName } from '../words/file-name.ts';
import { languageOf } from '../words/language.ts';
import { isVagueLink } from '../words/vague-link.ts';
import { contentOf } from './content.ts';
import { type Fault, MOST_SPOTS } from './fault.ts';
import type { Inherited, InheritedLink, InheritedPart, Left, LeftKind, PictureUse } from './reading.ts';
import { embedAt, pictureAt, Rewriting } from './rewrite.ts';
import { parseWithSpots, spotOf } from './spots.ts';
import { treeFaults } from './tree-faults.ts';

export interface InheritedSource {
  readonly html: string;
  /** The text of its style sheets. */
  readonly css: string;
  /** The address that it was read from. */
  readonly base: string;
  readonly hosts: Hosts;
  /** The language of the target that it is brought in for (BCP 47). */
  readonly language: string;
}

/** More frames than a page was ever made of. */
const MOST_FRAMED = 20;
/** So many links are asked for, and so many documents taken in; more are on no page that somebody reads. */
const MOST_LINKS = 200;
const MOST_DOCUMENTS = 50;
const MOST_EXAMPLES = 5;

/**
 * Reads a page that somebody else made into what a page of Placard can hold: blocks by the reader of pages, each picture with all
 * that is known of it, what is framed as a typed embed; and says what is wrong with it, and what does not come along. What only stands
 * round the page on its site is left out. Linear in its length; never runs nor loads anything.
 */
export function readInherited(
  { html, css, base, hosts, language }: InheritedSource,
  newId: () => string,
): Inherited {
  const nodes = treeOfParsed(parseWithSpots(html).childNodes);
  const root: HtmlElement = { name: 'html', attributes: [], children: nodes };
  const head = headOf(root);
  const address = baseIn(root, base);
  const content = contentOf(root);
  const sheets = `${css}\n${head.css}`;
  const rewriting = new Rewriting(address, hosts, readPagePictures(html, base).pictures);
  const tree = rewriting.rewritten(withRules(content.nodes, styleRules(sheets)));
  const styled = readStyled(tree, newId);
  const title = titleOf(styled.parts, root, head.title);
  const said = saidLanguage(root, head.language);
  const read = said === '' ? (languageOf(textOf({ ...root, children: content.nodes })) ?? language) : said;
  const links = eachOnce(rewriting.links);
  return {
    title,
    summary: head.summary,
    language: read,
    mended: partsOf(styled.parts, title),
    asRead: partsOf(readHtml(tree, newId).parts, title),
    files: rewriting.files,
    uses: rewriting.uses,
    embeds: rewriting.embeds,
    documents: eachOnce(rewriting.documents).slice(0, MOST_DOCUMENTS),
    links: links.slice(0, MOST_LINKS),
    framed: [...new Set(rewriting.frames.map(({ address }) => address))].slice(0, MOST_FRAMED),
    faults: [
      ...treeFaults(content.nodes),
      ...headingFault(styled.byLook),
      ...(said === '' ? [{ code: 'language-missing', values: { language: read }, spots: [] } as const] : []),
      ...(title === '' ? [{ code: 'title-missing', values: {}, spots: [] } as const] : []),
      ...framedFaults(rewriting),
      ...altFaults(rewriting.uses),
      ...vagueFault(rewriting.links),
    ],
    left: leftOf(content.furniture, rewriting.decoration, styled.leftOut),
  };
}

interface Head {
  readonly title: string;
  readonly summary: string;
  readonly language: string;
  readonly css: string;
}

function headOf(root: HtmlElement): Head {
  let [title, summary, language] = ['', '', ''];
  const sheets: string[] = [];
  for (const node of elementsIn(root)) {
    if (node.name === 'title' && title === '') title = oneLine(textOf(node));
    if (node.name === 'style') sheets.push(textOf(node));
    if (node.name !== 'meta') continue;
    const name = attribute(node, 'name').toLowerCase();
    if (name === 'description' && summary === '') summary = oneLine(attribute(node, 'content'));
    if (attribute(node, 'http-equiv').toLowerCase() === 'content-language')
      language ||= attribute(node, 'content').trim();
  }
  return { title: title.slice(0, 300), summary: summary.slice(0, 1000), language, css: sheets.join('\n') };
}

/** `base` of the document (WHATWG HTML, 4.2.3), where it has one that leads anywhere. */
function baseIn(root: HtmlElement, base: string): string {
  const element = [...elementsIn(root)].find(
    (node) => node.name === 'base' && attribute(node, 'href') !== '',
  );
  const href = element ? attribute(element, 'href').trim() : '';
  if (href === '' || !URL.canParse(href, base)) return base;
  const { protocol, href: whole } = new URL(href, base);
  return protocol === 'https:' || protocol === 'http:' ? whole : base;
}

const LANGUAGE = /^[a-z]{2,3}(?:-[a-z0-9]{2,8}){0,3}$/i;

function saidLanguage(root: HtmlElement, inHead: string): string {
  const html = [...elementsIn(root)].find((node) => node.name === 'html' && attribute(node, 'lang') !== '');
  const said = (html ? attribute(html, 'lang') : inHead).trim();
  return LANGUAGE.test(said) ? said : '';
}

const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** What the page is called: its first heading, where it begins with one; else what its tab says. */
function titleOf(parts: readonly ReadPart[], root: HtmlElement, inHead: string): string {
  const first = [...elementsIn(root)].find((node) => node.name === 'h1' && oneLine(textOf(node)) !== '');
  if (first) return oneLine(textOf(first)).slice(0, 300);
  const [begin] = parts.filter(({ kind }) => kind === 'block');
  const opening =
    begin?.kind === 'block' && begin.block.type === 'heading' ? plainText(begin.block.content) : '';
  if (opening.trim() !== '') return oneLine(opening).slice(0, 300);
  return inHead;
}

/** What was read, with the markers as what they stand for. The page's title stands over it, and not in it once more. */
function partsOf(parts: readonly ReadPart[], title: string): readonly InheritedPart[] {
  const own: InheritedPart[] = [];
  let isTitleSeen = false;
  for (const part of parts) {
    if (part.kind === 'block') {
      const isItsTitle = !isTitleSeen && isTitle(part.block, title);
      if (isItsTitle) isTitleSeen = true;
      else own.push({ kind: 'block', block: part.block });
      continue;
    }
    const at = part.kind === 'picture' ? pictureAt(part.offered.address) : embedAt(part.code);
    if (at !== null)
      own.push(part.kind === 'picture' ? { kind: 'picture', use: at } : { kind: 'embed', embed: at });
  }
  return isTitleSeen ? withoutGap(own) : own;
}

/** Headings begin under the title, once that is none of them any more. */
function withoutGap(parts: readonly InheritedPart[]): readonly InheritedPart[] {
  const levels = parts.flatMap((part) =>
    part.kind === 'block' && part.block.type === 'heading' ? part.block.attrs.level : [],
  );
  if (levels.length === 0 || levels.includes(2)) return parts;
  return parts.map((part) => {
    if (part.kind !== 'block' || part.block.type !== 'heading') return part;
    const { attrs } = part.block;
    const level = attrs.level === 4 && levels.includes(3) ? 3 : 2;
    return { kind: 'block', block: { ...part.block, attrs: { ...attrs, level } } };
  });
}

function isTitle(block: Block, title: string): boolean {
  if (block.type !== 'heading' && block.type !== 'paragraph') return false;
  return title !== '' && oneLine(plainText(block.content)) === title;
}

function headingFault(byLook: readonly HtmlElement[]): readonly Fault[] {
  if (byLook.length === 0) return [];
  const spots = byLook.map(spotOf).slice(0, MOST_SPOTS);
  return [{ code: 'letter-heading', values: { count: byLook.length }, spots }];
}

function framedFaults(rewriting: Rewriting): readonly Fault[] {
  const { refused, dead, codeInText, insecure, filmsWithoutCaptions, frames, writing } = rewriting;
  const faults: Fault[] = [];
  const [frame] = frames;
  if (frame)
    faults.push({
      code: 'frames',
      values: { count: frames.length, address: frame.address },
      spots: spotsOf(frames),
    });
  if (writing.length > 0)
    faults.push({
      code: 'script-written',
      values: { count: writing.length },
      spots: writing.slice(0, MOST_SPOTS),
    });
  const [first] = refused;
  if (first)
    faults.push({
      code: 'embed-refused',
      values: { count: refused.length, why: first.why },
      spots: spotsOf(refused),
    });
  if (dead.length > 0)
    faults.push({
      code: 'dead-player',
      values: { count: dead.length, leads: dead.filter(({ leads }) => leads).length },
      spots: spotsOf(dead),
    });
  if (codeInText.length > 0)
    faults.push({ code: 'code-as-text', values: { count: codeInText.length }, spots: [] });
  if (insecure.length > 0)
    faults.push({
      code: 'mixed-content',
      values: { count: insecure.length },
      spots: insecure.slice(0, MOST_SPOTS),
    });
  if (filmsWithoutCaptions.length > 0)
    faults.push({
      code: 'captions-missing',
      values: { count: filmsWithoutCaptions.length },
      spots: filmsWithoutCaptions.slice(0, MOST_SPOTS),
    });
  return faults;
}

const spotsOf = (some: readonly { readonly spot: number }[]): readonly number[] =>
  some.map(({ spot }) => spot).slice(0, MOST_SPOTS);

/** Alt texts that are not there, or are no words (W3C WAI, alt decision tree). */
function altFaults(uses: readonly PictureUse[]): readonly Fault[] {
  const missing = uses.filter(({ alt }) => alt === null);
  const names = uses.filter(({ alt }) => alt !== null && alt.trim() !== '' && isFileName(alt.trim()));
  const linked = uses.filter(({ alt, link }) => alt !== null && alt.trim() === '' && link !== '');
  const [name] = names;
  return [
    ...(missing.length === 0
      ? []
      : [{ code: 'alt-missing', values: { count: missing.length }, spots: spotsOf(missing) } as const]),
    ...(name
      ? [
          {
            code: 'alt-file-name',
            values: { count: names.length, example: name.alt ?? '' },
            spots: spotsOf(names),
          } as const,
        ]
      : []),
    ...(linked.length === 0
      ? []
      : [{ code: 'linked-decorative', values: { count: linked.length }, spots: spotsOf(linked) } as const]),
  ];
}

/** What the links lead to is asked later: until then none of them is named after it. */
function vagueFault(links: readonly InheritedLink[]): readonly Fault[] {
  const vague = links.filter(({ words }) => isVagueLink(words));
  const [first] = vague;
  if (!first) return [];
  return [
    {
      code: 'link-vague',
      values: { count: vague.length, words: first.words, named: 0 },
      spots: spotsOf(vague),
    },
  ];
}

function eachOnce(links: readonly InheritedLink[]): readonly InheritedLink[] {
  const seen = new Set<string>();
  return links.filter(({ address }) => !seen.has(address) && seen.add(address));
}

function leftOf(
  furniture: readonly string[],
  decoration: readonly string[],
  leftOut: readonly LeftOut[],
): readonly Left[] {
  const of = (kind: LeftKind, examples: readonly string[]): readonly Left[] =>
    examples.length === 0
      ? []
      : [{ kind, count: examples.length, examples: [...new Set(examples)].slice(0, MOST_EXAMPLES) }];
  const words = (...codes: readonly LeftOut['code'][]) =>
    leftOut.filter(({ code }) => codes.includes(code)).map((one) => one.words || one.after);
  return [
    ...of('furniture', furniture),
    ...of('decoration', decoration),
    ...of('drawing', words('drawing')),
    ...of('text', words('struck', 'remark')),
  ];
}
