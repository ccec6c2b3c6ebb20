import type { Editor } from '@tiptap/core';
import * as v from 'valibot';
import { AttributionSchema, CiteSchema } from '#core/page/blocks/quotation/schema.ts';
import { Form, Line } from '../../../form/form.tsx';
import { useSaveForm } from '../../../form/use-save-form.ts';
import { LabelRow } from '../../../label/row.tsx';
import { Button } from '../../../ui/button.tsx';
import { changeBlock } from '../../commands.ts';
import type { BlockRowProps } from '../kind.ts';

const SourceSchema = v.object({ attribution: AttributionSchema, cite: CiteSchema });

/** Whose words a quotation is, and where they can be read. */
export function QuotationRow({ editor, block }: BlockRowProps) {
  return block.type === 'quotation' ? (
    <LabelRow name="Source">
      <SourceForm
        key={`${block.attrs.id} ${block.attrs.attribution} ${block.attrs.cite}`}
        editor={editor}
        {...block.attrs}
      />
    </LabelRow>
  ) : null;
}

function SourceForm({
  editor,
  id,
  attribution,
  cite,
}: {
  readonly editor: Editor;
  readonly id: string;
  readonly attribution: string;
  readonly cite: string;
}) {
  const form = useSaveForm({
    schema: SourceSchema,
    defaults: { attribution, cite },
    save: (source) => void changeBlock(editor, id, source, 'saying whose words these are'),
  });
  return (
    <Form of={form}>
      <Line
        of={form}
        name="attribution"
        label="Whose words"
        placeholder="A name, an office, a work"
        maxLength={300}
      />
      <Line
        of={form}
        name="cite"
        label="Where they can be read"
        placeholder="https://"
        isMono
        maxLength={2000}
      />
      <div>
        <Button type="submit">Keep</Button>
      </div>
    </Form>
  );
}
