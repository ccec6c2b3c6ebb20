import { attribute, type HtmlElement, hasClass } from '../../html-tree.ts';
import { Flow, type ReadElement, type Reader, type ReadPart } from '../../reading.ts';
import { gapIn } from '../gap.ts';
import { wholeLinkOf, withoutWholeLink } from '../whole-link.ts';
import { CARD_GAP, CARDS_PER_ROW, type Card, isOnCard, type OnCard, perRowFor } from './schema.ts';

/** A list that is said to be one of cards. */
export const readCards: ReadElement = (node, flow, reader) => {
  const after: ReadPart[] = [];
  const content = node.children.flatMap((child) =>
    typeof child !== 'string' && child.name === 'li' ? cardOf(child, reader, after) : [],
  );
  if (content.length > 0)
    flow.putBlock({
      type: 'cards',
      attrs: {
        id: reader.newId(),
        perRow: perRowIn(node, content.length),
        gap: gapIn(attribute(node, 'style'), CARD_GAP),
      },
      content,
    });
  for (const part of after) flow.put(part);
};

function perRowIn(node: HtmlElement, count: number) {
  return CARDS_PER_ROW.find((perRow) => hasClass(node, `in-${perRow}`)) ?? perRowFor(count);
}

function cardOf(node: HtmlElement, reader: Reader, after: ReadPart[]): Card[] {
  const inside = new Flow(reader.newId);
  reader.readAll(node.children, inside, []);
  inside.endParagraph();
  const content: OnCard[] = [];
  for (const part of inside.parts) {
    if (part.kind === 'block' && isOnCard(part.block)) content.push(part.block);
    else after.push(part);
  }
  if (content.length === 0) return [];
  const link = hasClass(node, 'linked') ? wholeLinkOf(content) : '';
  const plain = link === '' ? content : withoutWholeLink(content, link);
  return [{ type: 'card', attrs: { id: reader.newId(), link }, content: plain }];
}
