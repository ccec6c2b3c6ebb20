import { attribute, type HtmlElement, type HtmlNode } from '../../html-tree.ts';
import { marksOf } from '../../read-marks.ts';
import { Flow, type ReadElement, type Reader, type ReadPart } from '../../reading.ts';
import { isSilent } from '../../silent.ts';
import { type InnerList, type ListItem, shallowItems } from './schema.ts';

const LISTS = /^(?:ul|ol|menu|dir)$/;

/** Pictures and what is framed have no place in a list: they come after it. */
export const readList: ReadElement = (node, flow, reader) => {
  const after: ReadPart[] = [];
  const { content, ...list } = listOf(node, reader, after);
  if (content.length > 0) {
    const id = reader.newId();
    flow.putBlock(
      list.type === 'orderedList'
        ? { type: 'orderedList', attrs: { id, ...list.attrs }, content: shallowItems(content) }
        : { type: 'bulletList', attrs: { id }, content: shallowItems(content) },
    );
  }
  for (const part of after) flow.put(part);
};

function listOf(node: HtmlElement, reader: Reader, after: ReadPart[]): InnerList {
  const items: ListItem[] = [];
  for (const child of node.children) {
    if (typeof child === 'string' ? child.trim() === '' : isSilent(child.name)) continue;
    // A list that stands straight in a list belongs to the entry before it.
    const last = items.at(-1);
    if (typeof child !== 'string' && LISTS.test(child.name) && last)
      last.content.push(listOf(child, reader, after));
    else {
      const content = itemOf(child, reader, after);
      if (content.length > 0) items.push({ type: 'listItem', content });
    }
  }
  const start = Number.parseInt(attribute(node, 'start'), 10);
  return node.name === 'ol'
    ? { type: 'orderedList', ...(start > 1 ? { attrs: { start } } : {}), content: items }
    : { type: 'bulletList', content: items };
}

function itemOf(node: HtmlNode, reader: Reader, after: ReadPart[]): ListItem['content'] {
  const inside = new Flow(reader.newId);
  if (typeof node === 'string') inside.text(node, []);
  else reader.readAll(node.children, inside, marksOf(node, []));
  inside.endParagraph();
  const content = inside.parts.flatMap((part) => partsOfItem(part, after));
  // An entry begins with words, whatever stood in it.
  return content[0] && content[0].type !== 'paragraph' ? [{ type: 'paragraph' }, ...content] : content;
}

/** What of a part can stand in an entry; the rest goes behind the list. */
function partsOfItem(part: ReadPart, after: ReadPart[]): ListItem['content'] {
  if (part.kind !== 'block') {
    after.push(part);
    return [];
  }
  const { block } = part;
  switch (block.type) {
    case 'paragraph':
    case 'heading':
      return [{ type: 'paragraph', content: block.content ?? [] }];
    case 'bulletList':
      return [{ type: 'bulletList', content: block.content }];
    case 'orderedList': {
      const { start } = block.attrs;
      return [
        { type: 'orderedList', ...(start === undefined ? {} : { attrs: { start } }), content: block.content },
      ];
    }
    case 'quotation':
      return block.content.flatMap((inner) => partsOfItem({ kind: 'block', block: inner }, after));
    default:
      after.push(part);
      return [];
  }
}
