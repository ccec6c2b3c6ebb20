import type { Node } from '@tiptap/pm/model';
import type { Anchored } from '#core/page/anchored.ts';
import { anchorsOf } from '#core/page/anchors.ts';
import type { Heading } from '#core/page/blocks/heading/schema.ts';
import { HEADING_LEVELS } from '#core/page/blocks/heading/schema.ts';
import { forEachBlock } from './blocks/walk.ts';

/** The headings of the sheet as places that a link can lead to. */
export function headingsOf(doc: Node, language: string): readonly Anchored[] {
  const blocks: Heading[] = [];
  forEachBlock(doc, (node) => {
    if (node.type.name !== 'heading') return;
    const { id, level, anchor } = node.attrs;
    blocks.push({
      type: 'heading',
      attrs: {
        id: String(id),
        level: HEADING_LEVELS.find((one) => one === level) ?? 2,
        ...(typeof anchor === 'string' && anchor !== '' ? { anchor } : {}),
      },
      content: node.textContent === '' ? [] : [{ type: 'text', text: node.textContent }],
    });
  });
  return anchorsOf({ blocks }, language);
}
