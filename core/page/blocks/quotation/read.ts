import { isWebAddress } from '../../../rights/web-address.ts';
import { attribute, elementsIn, type HtmlElement, textOf } from '../../html-tree.ts';
import { readBlock } from '../../read-block.ts';
import { Flow, type ReadElement, type Reader, type ReadPart } from '../../reading.ts';
import { isQuoted, type Quoted } from './schema.ts';

/** A quotation, with whose words it is where that stands in it as pages say it: in a `footer`, or a `cite` behind all else. */
export const readQuotation: ReadElement = (node, flow, reader) => {
  const said = lastElement(node);
  const isSaid = said?.name === 'footer' || said?.name === 'cite';
  const words = isSaid ? { ...node, children: node.children.filter((child) => child !== said) } : node;
  put(words, isSaid && said ? said : null, flow, reader);
};

/** A figure whose content is a quotation says in its caption whose words it is; any other is read as what is in it. */
export const readFigure: ReadElement = (node, flow, reader, marks) => {
  const inner = elementsOf(node);
  const quote = inner.find(({ name }) => name === 'blockquote');
  const caption = inner.find(({ name }) => name === 'figcaption');
  if (!quote || inner.some((child) => child !== quote && child !== caption))
    readBlock(node, flow, reader, marks);
  else if (caption) put(quote, caption, flow, reader);
  else readQuotation(quote, flow, reader, marks);
};

const elementsOf = ({ children }: HtmlElement): readonly HtmlElement[] =>
  children.flatMap((child) => (typeof child === 'string' ? [] : [child]));

/** The last thing in an element, where that is an element and not words. */
function lastElement({ children }: HtmlElement): HtmlElement | null {
  const last = children.findLast((child) => typeof child !== 'string' || child.trim() !== '');
  return last && typeof last !== 'string' ? last : null;
}

function put(node: HtmlElement, said: HtmlElement | null, flow: Flow, reader: Reader): void {
  flow.endParagraph();
  const inside = new Flow(reader.newId);
  reader.readAll(node.children, inside, []);
  inside.endParagraph();
  const after: ReadPart[] = [];
  const content = inside.parts.flatMap((part) => quotedOf(part, after));
  if (content.length > 0)
    flow.putBlock({
      type: 'quotation',
      attrs: {
        id: reader.newId(),
        attribution: said ? nameIn(said) : '',
        cite: addressIn(node, said),
      },
      content,
    });
  for (const part of after) flow.put(part);
}

/** What of a part can stand in a quotation; pictures, what is framed and what is set apart come after it. */
function quotedOf(part: ReadPart, after: ReadPart[]): Quoted[] {
  if (part.kind === 'block') {
    const { block } = part;
    if (isQuoted(block)) return [block];
    if (block.type === 'quotation') return block.content;
    if (block.type === 'heading') {
      const { content } = block;
      return [{ type: 'paragraph', attrs: { id: block.attrs.id }, ...(content ? { content } : {}) }];
    }
  }
  after.push(part);
  return [];
}

/** A name without the dash that is often put before it. */
const nameIn = (said: HtmlElement): string =>
  textOf(said)
    .replace(/\s+/g, ' ')
    .replace(/^[\s\u2012-\u2015-]+/u, '')
    .trim()
    .slice(0, 300)
    .trim();

/** Where the words are from: as the quotation says it (HTML, `cite`), else as the name is linked. */
function addressIn(node: HtmlElement, said: HtmlElement | null): string {
  const link = said && [...elementsIn(said)].find(({ name }) => name === 'a');
  const found = [attribute(node, 'cite'), link ? attribute(link, 'href') : ''].map((one) => one.trim());
  return found.find((address) => isWebAddress(address) && address.length <= 2000) ?? '';
}
