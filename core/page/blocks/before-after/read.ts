import * as v from 'valibot';
import { attribute } from '../../html-tree.ts';
import { readBlock } from '../../read-block.ts';
import type { ReadElement } from '../../reading.ts';
import { placedIn } from '../placed-in.ts';
import { DIVIDER, DividerSchema } from './schema.ts';

/** What is said to be a pair: the pieces in it. */
export const readPair: ReadElement = (node, flow, reader, marks) => {
  const { content, after } = placedIn(node.children, reader);
  if (content.length === 0) {
    readBlock(node, flow, reader, marks);
    return;
  }
  const said = /(?:^|;)\s{0,9}--at:\s{0,9}(\d{1,3})%/.exec(attribute(node, 'style').slice(0, 2000))?.[1];
  const divider = v.safeParse(DividerSchema, said === undefined ? DIVIDER.usual : Number(said));
  flow.putBlock({
    type: 'beforeAfter',
    attrs: { id: reader.newId(), divider: divider.success ? divider.output : DIVIDER.usual },
    content,
  });
  for (const part of after) flow.put(part);
};
