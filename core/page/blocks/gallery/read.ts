import { attribute, hasClass, textOf } from '../../html-tree.ts';
import type { ReadElement } from '../../reading.ts';
import { gapIn } from '../gap.ts';
import { placedIn } from '../placed-in.ts';
import { GALLERY_GAP, GALLERY_PER_ROW, galleryPerRow } from './schema.ts';

const MOST_LETTERS = 2000;

/** A figure that is said to be a gallery: the pieces in it, and its last caption as that of all. */
export const readGallery: ReadElement = (node, flow, reader) => {
  const caption = node.children.findLast((child) => typeof child !== 'string' && child.name === 'figcaption');
  const { content, after } = placedIn(
    node.children.filter((child) => child !== caption),
    reader,
  );
  const words = caption ? textOf(caption).replace(/\s+/g, ' ').trim() : '';
  if (content.length > 0)
    flow.putBlock({
      type: 'gallery',
      attrs: {
        id: reader.newId(),
        perRow: GALLERY_PER_ROW.find((one) => hasClass(node, `in-${one}`)) ?? galleryPerRow(content.length),
        gap: gapIn(attribute(node, 'style'), GALLERY_GAP),
        caption: words.slice(0, MOST_LETTERS).trim(),
      },
      content,
    });
  for (const part of after) flow.put(part);
};
