import { SummarySchema } from '#core/page/blocks/details/schema.ts';
import { LabelRow } from '../../../label/row.tsx';
import type { BlockRowProps } from '../kind.ts';
import { LineForm } from '../line-form.tsx';

/** What a folded section says while it is closed. */
export function DetailsRow({ editor, block }: BlockRowProps) {
  return block.type === 'details' ? (
    <LabelRow name="Folded">
      <LineForm
        editor={editor}
        id={block.attrs.id}
        attribute="summary"
        value={block.attrs.summary}
        schema={SummarySchema}
        label="Says while closed"
        placeholder="What to bring"
        maxLength={300}
        change="what it says while folded"
      />
    </LabelRow>
  ) : null;
}
