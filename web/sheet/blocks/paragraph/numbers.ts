import type { Node } from '@tiptap/pm/model';
import { forEachBlock } from '../walk.ts';

/** Where the paragraphs that hold text stand: paragraph N of the page is the N-th of them. */
export function paragraphPlaces(doc: Node): readonly number[] {
  const places: number[] = [];
  forEachBlock(doc, (block, pos) => {
    if (block.type.name === 'paragraph' && block.content.size > 0) places.push(pos);
  });
  return places;
}

export function paragraphNumberOf(doc: Node, node: Node): number {
  return paragraphPlaces(doc).findIndex((pos) => doc.nodeAt(pos) === node) + 1;
}
