import * as v from 'valibot';
import { ColourSchema } from '../../../media/colour.ts';
import { OVER_PLACES } from '../../../media/over-words.ts';
import { attribute, type HtmlElement, hasClass } from '../../html-tree.ts';
import { readBlock } from '../../read-block.ts';
import { Flow, type ReadElement, type Reader, type ReadPart } from '../../reading.ts';
import { wholeLinkOf, withoutWholeLink } from '../whole-link.ts';
import { atPlace } from './laid-out.ts';
import {
  BANNER_POSITIONS,
  type Banner,
  type BannerWords,
  isInBanner,
  isInWords,
  USUAL_BANNER,
} from './schema.ts';

/** What is said to be a banner: its picture and its words; one that has neither is what stands in it. */
export const readBanner: ReadElement = (node, flow, reader, marks) => {
  const after: ReadPart[] = [];
  const parts = partsIn(node, reader, after);
  if (parts.length === 0) {
    readBlock(node, flow, reader, marks);
    return;
  }
  const link = hasClass(node, 'linked') ? wholeLinkOf(parts.flatMap(linesIn)) : '';
  flow.putBlock({
    type: 'banner',
    attrs: { id: reader.newId(), ...lookOf(node), link },
    content: link === '' ? parts : parts.map((part) => withoutLink(part, link)),
  });
  for (const part of after) flow.put(part);
};

/** What stands over the picture; what cannot stand there comes after the banner. */
const readBannerWords: ReadElement = (node, flow, reader, marks) => {
  const inside = new Flow(reader.newId);
  reader.readAll(node.children, inside, marks);
  inside.endParagraph();
  const content: BannerWords['content'] = [];
  const after: ReadPart[] = [];
  for (const part of inside.parts)
    if (part.kind === 'block' && isInWords(part.block)) content.push(part.block);
    else after.push(part);
  if (content.length > 0) flow.putBlock({ type: 'bannerWords', attrs: { id: reader.newId() }, content });
  for (const part of after) flow.put(part);
};

function partsIn(node: HtmlElement, reader: Reader, after: ReadPart[]): Banner['content'] {
  const inside = new Flow(reader.newId);
  for (const child of node.children)
    if (typeof child !== 'string' && hasClass(child, 'banner-words'))
      readBannerWords(child, inside, reader, []);
    else reader.read(child, inside, []);
  inside.endParagraph();
  return inside.parts.flatMap((part) => {
    if (part.kind === 'block' && isInBanner(part.block)) return [part.block];
    after.push(part);
    return [];
  });
}

const linesIn = (part: Banner['content'][number]) => (part.type === 'bannerWords' ? part.content : []);

const withoutLink = (part: Banner['content'][number], link: string): Banner['content'][number] =>
  part.type === 'bannerWords' ? { ...part, content: withoutWholeLink(part.content, link) } : part;

function lookOf(node: HtmlElement): Omit<Banner['attrs'], 'id' | 'link'> {
  const style = attribute(node, 'style').slice(0, 2000);
  const colour = (name: string) => {
    const said = new RegExp(`(?:^|;)\\s{0,9}--${name}:\\s{0,9}(#[0-9a-f]{6})`, 'i').exec(style)?.[1];
    const read = v.safeParse(ColourSchema, said);
    return read.success ? read.output : null;
  };
  return {
    position: BANNER_POSITIONS.find((one) => hasClass(node, one)) ?? USUAL_BANNER.position,
    place: OVER_PLACES.find((place) => hasClass(node, atPlace(place).slice(1))) ?? USUAL_BANNER.place,
    ink: colour('ink') ?? USUAL_BANNER.ink,
    plate: hasClass(node, 'plated') ? colour('plate') : null,
  };
}
