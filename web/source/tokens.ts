import type { DefaultTreeAdapterMap } from 'parse5';
import { SIGN_ATTRIBUTE } from '#core/page/blocks/placement/sign.ts';
import type { ParsedNode } from '#core/page/parsed-tree.ts';

type ParsedElement = DefaultTreeAdapterMap['element'];

/** One word, tag or attribute of source, and where it stands. */
export interface Token {
  /** What it says: tokens of the same key say the same. */
  readonly key: string;
  readonly kind: 'element' | 'end' | 'attribute' | 'words' | 'remark';
  /** The name of the element or the attribute; for words, these. */
  readonly name: string;
  readonly from: number;
  readonly to: number;
}

/** Elements of one meaning, of which Placard writes the second. */
const ALIKE: Readonly<Record<string, string>> = {
  b: 'strong',
  i: 'em',
  kbd: 'code',
  samp: 'code',
  tt: 'code',
};
/** Parsers add these where nobody wrote them. */
const IMPLIED = new Set(['tbody', 'html', 'head', 'body']);
/** What Placard numbers anew where a piece is copied. */
const NUMBERED = new Set([SIGN_ATTRIBUTE]);

/** The tokens of parsed source (parse5, with locations), in order. */
export function tokensOf(nodes: readonly ParsedNode[], text: string): readonly Token[] {
  const tokens: Token[] = [];
  for (const node of nodes) walk(node, text, tokens);
  return tokens;
}

function walk(node: ParsedNode, text: string, tokens: Token[]): void {
  if ('tagName' in node) {
    walkElement(node, text, tokens);
    return;
  }
  const { sourceCodeLocation: at } = node;
  if (!at) return;
  if (node.nodeName === '#text' && 'value' in node)
    words(node.value, at.startOffset, at.endOffset, text, tokens);
  else if (node.nodeName === '#comment' && 'data' in node)
    tokens.push({ key: `!${node.data}`, kind: 'remark', name: '', from: at.startOffset, to: at.endOffset });
}

function walkElement(node: ParsedElement, text: string, tokens: Token[]): void {
  const { sourceCodeLocation: at } = node;
  const name = ALIKE[node.tagName] ?? node.tagName;
  const start = at?.startTag ?? at;
  if (start && !IMPLIED.has(name)) {
    const from = start.startOffset;
    tokens.push({
      key: `<${name}`,
      kind: 'element',
      name: node.tagName,
      from,
      to: from + 1 + node.tagName.length,
    });
    const attributes = node.attrs
      .filter((one) => !NUMBERED.has(one.name))
      .sort((one, other) => (one.name < other.name ? -1 : 1));
    for (const one of attributes) {
      const place = at?.attrs?.[one.name] ?? start;
      tokens.push({
        key: `@${one.name}=${settled(one.name, one.value)}`,
        kind: 'attribute',
        name: one.name,
        from: place.startOffset,
        to: place.endOffset,
      });
    }
  }
  const children =
    'content' in node ? (node as DefaultTreeAdapterMap['template']).content.childNodes : node.childNodes;
  for (const child of children) walk(child, text, tokens);
  if (at?.endTag && !IMPLIED.has(name))
    tokens.push({
      key: `</${name}`,
      kind: 'end',
      name: node.tagName,
      from: at.endTag.startOffset,
      to: at.endTag.endOffset,
    });
}

/** A value as it is compared: the order of classes and blanks in a style say nothing. */
function settled(name: string, value: string): string {
  if (name === 'class') return value.split(/\s+/).filter(Boolean).sort().join(' ');
  return name === 'style' ? value.replace(/\s+/g, '').replace(/;$/, '') : value.replace(/\s+/g, ' ').trim();
}

/** Each word of a text; where letters are written as references, all of them stand for the whole text. */
function words(value: string, from: number, to: number, text: string, tokens: Token[]): void {
  const isPlain = text.slice(from, to) === value;
  for (const found of value.matchAll(/\S+/g)) {
    const [word] = found;
    const begin = isPlain ? from + found.index : from;
    tokens.push({
      key: word,
      kind: 'words',
      name: word,
      from: begin,
      to: isPlain ? begin + word.length : to,
    });
  }
}
