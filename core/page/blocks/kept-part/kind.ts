import * as v from 'valibot';
import { attribute } from '../../html-tree.ts';
import { IdSchema } from '../../id.ts';
import { Flow } from '../../reading.ts';
import type { BlockKind } from '../kind.ts';
import { isInPart, type KeptPart } from './schema.ts';

/** What stands on many pages alike, as it stands in the text: what is kept together has one element, and no look of its own. */
export const keptPart: BlockKind<KeptPart> = {
  write: ({ attrs: { part }, content }, context) => {
    const inner = context.inside(content, context.room);
    if (inner === '') return '';
    const name = part === '' ? '' : ` data-part="${part}"`;
    return `<div class="kept-part"${name}>\n${inner}\n</div>`;
  },
  words: () => [],
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isInPart) }),
    room: (room) => room,
  },
  reads: {
    'div.kept-part': (node, flow, reader) => {
      const inside = new Flow(reader.newId);
      reader.readAll(node.children, inside, []);
      inside.endParagraph();
      const content = inside.parts.flatMap((one) =>
        one.kind === 'block' && isInPart(one.block) ? [one.block] : [],
      );
      const part = v.safeParse(IdSchema, attribute(node, 'data-part'));
      if (content.length > 0)
        flow.putBlock({
          type: 'keptPart',
          attrs: { id: reader.newId(), part: part.success ? part.output : '' },
          content,
        });
      for (const one of inside.parts) if (one.kind !== 'block' || !isInPart(one.block)) flow.put(one);
    },
  },
};
