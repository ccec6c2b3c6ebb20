import type { Editor } from '@tiptap/core';
import type { PageDoc } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import { wayTo } from '#core/page/walk.ts';
import { sheetKindOf } from '../sheet/blocks/kinds.ts';

interface BlockRowsProps {
  readonly editor: Editor;
  readonly doc: PageDoc;
  readonly blockId: string;
  readonly rules: HouseRules;
}

/** What the kinds say and ask of a block and of all that it stands in, from the outermost. */
export function BlockRows({ editor, doc, blockId, rules }: BlockRowsProps) {
  return wayTo(doc, blockId).map((block) => {
    const Row = sheetKindOf(block.type)?.Row;
    return Row ? <Row key={block.attrs.id} editor={editor} block={block} rules={rules} /> : null;
  });
}
