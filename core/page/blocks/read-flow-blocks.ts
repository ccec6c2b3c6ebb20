import type { HtmlNode } from '../html-tree.ts';
import { Flow, type Reader, type ReadPart } from '../reading.ts';
import { type FlowBlock, isFlowBlock } from './flow-block.ts';

/** What stands in an element that sets a part of the page apart, and what cannot stand there and comes after it. */
export function readFlowBlocks(
  nodes: readonly HtmlNode[],
  reader: Reader,
): { readonly content: FlowBlock[]; readonly after: readonly ReadPart[] } {
  const inside = new Flow(reader.newId);
  reader.readAll(nodes, inside, []);
  inside.endParagraph();
  const content = inside.parts.flatMap((part) =>
    part.kind === 'block' && isFlowBlock(part.block) ? [part.block] : [],
  );
  const after = inside.parts.filter((part) => part.kind !== 'block' || !isFlowBlock(part.block));
  return { content, after };
}

/** Most letters of what is said of a block in one line. */
const MOST_LETTERS = 300;

/** What an element says, for a line of that length; where it says more, all of it also stands as text in the block. */
export function readLine(
  said: string,
  reader: Reader,
): { readonly line: string; readonly rest: readonly FlowBlock[] } {
  const whole = said.replace(/\s+/g, ' ').trim();
  if (whole.length <= MOST_LETTERS) return { line: whole, rest: [] };
  const line = whole.slice(0, MOST_LETTERS).replace(/\s\S*$/u, '');
  return {
    line,
    rest: [{ type: 'paragraph', attrs: { id: reader.newId() }, content: [{ type: 'text', text: whole }] }],
  };
}
