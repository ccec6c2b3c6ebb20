import { attribute, type HtmlElement } from '../../html-tree.ts';
import { readBlock } from '../../read-block.ts';
import type { ReadElement, Reader, ReadPart } from '../../reading.ts';
import { gapIn } from '../gap.ts';
import { readFlowBlocks } from '../read-flow-blocks.ts';
import { COLUMN_COUNTS, COLUMN_SHARE, COLUMNS_GAP, type Column } from './schema.ts';

const classesOf = (node: HtmlElement) => attribute(node, 'class').split(/\s+/);

/** A `div` that is said to be one of columns; one that has none is what stands in it. */
export const readColumns: ReadElement = (node, flow, reader, marks) => {
  const columns = node.children.filter(
    (child): child is HtmlElement => typeof child !== 'string' && classesOf(child).includes('column'),
  );
  if (columns.length < COLUMN_COUNTS[0] || columns.length > (COLUMN_COUNTS.at(-1) ?? 0)) {
    readBlock(node, flow, reader, marks);
    return;
  }
  const style = attribute(node, 'style').slice(0, 2000);
  const shares = /--shares:((?:\s{0,2}minmax\(0,\s{0,2}\d{1,3}fr\)){1,8})/.exec(style)?.[1];
  const said = [...(shares ?? '').matchAll(/(\d{1,3})fr/g)].map((found) => Number(found[1]));
  const after: ReadPart[] = [];
  const content = columns.map((child, at) => columnOf(child, said[at], reader, after));
  const id = reader.newId();
  flow.putBlock({ type: 'columns', attrs: { id, gap: gapIn(style, COLUMNS_GAP) }, content });
  for (const part of after) flow.put(part);
};

function columnOf(node: HtmlElement, said: number | undefined, reader: Reader, after: ReadPart[]): Column {
  const read = readFlowBlocks(node.children, reader);
  after.push(...read.after);
  const isShare = said !== undefined && said >= COLUMN_SHARE.least && said <= COLUMN_SHARE.most;
  return {
    type: 'column',
    attrs: { id: reader.newId(), share: isShare ? said : 50, leads: classesOf(node).includes('leads') },
    content: read.content,
  };
}
