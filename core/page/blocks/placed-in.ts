import type { HtmlNode } from '../html-tree.ts';
import { Flow, type Reader, type ReadPart } from '../reading.ts';
import { isPlacedBlock, type PlacedBlock } from './placement/schema.ts';

/** The pieces in an element that holds pieces alone, and what cannot stand there and comes after it. */
export function placedIn(
  nodes: readonly HtmlNode[],
  reader: Reader,
): { readonly content: PlacedBlock[]; readonly after: readonly ReadPart[] } {
  const inside = new Flow(reader.newId);
  reader.readAll(nodes, inside, []);
  inside.endParagraph();
  const isPlaced = (part: ReadPart) => part.kind === 'block' && isPlacedBlock(part.block);
  return {
    content: inside.parts.flatMap((part) =>
      part.kind === 'block' && isPlacedBlock(part.block) ? [part.block] : [],
    ),
    after: inside.parts.filter((part) => !isPlaced(part)),
  };
}
