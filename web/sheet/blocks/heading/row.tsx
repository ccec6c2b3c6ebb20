import * as v from 'valibot';
import { AnchorSchema } from '#core/page/blocks/heading/schema.ts';
import { LabelRow } from '../../../label/row.tsx';
import { headingsOf } from '../../headings.ts';
import type { BlockRowProps } from '../kind.ts';
import { LineForm } from '../line-form.tsx';

const KeptSchema = v.union(
  [v.literal(''), AnchorSchema],
  'An anchor is of small letters, digits and hyphens, and begins with a letter.',
);

/** The name by which links find a heading. */
export function HeadingRow({ editor, block, rules }: BlockRowProps) {
  if (block.type !== 'heading') return null;
  const { id, anchor = '' } = block.attrs;
  const usual = headingsOf(editor.state.doc, rules.language).find((one) => one.id === id)?.anchor ?? '';
  return (
    <LabelRow name="Anchor">
      <LineForm
        editor={editor}
        id={id}
        attribute="anchor"
        value={anchor}
        schema={KeptSchema}
        label="Links find it by #"
        placeholder={usual}
        isMono
        maxLength={80}
        change="the anchor of a heading"
      />
    </LabelRow>
  );
}
