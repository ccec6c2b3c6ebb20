import { type FieldPathByValue, type FieldValues, useWatch } from 'react-hook-form';
import { describedParts, sayDescribed } from '#core/page/long-description.ts';
import { Lines } from '../form/form.tsx';
import type { SaveForm } from '../form/use-save-form.ts';

interface LongDescriptionProps<In extends FieldValues> {
  readonly of: SaveForm<In>;
  readonly name: FieldPathByValue<In, string>;
}

/** A long description as it is typed, and what it is read as where it is more than paragraphs. */
export function LongDescription<In extends FieldValues>({ of, name }: LongDescriptionProps<In>) {
  const typed: unknown = useWatch({ control: of.form.control, name });
  const parts = describedParts(typeof typed === 'string' ? typed : '');
  const isPlain = parts.every(({ kind }) => kind === 'paragraph');
  return (
    <>
      <Lines
        of={of}
        name={name}
        label="Long description"
        hint="For charts and maps: everything that is in them. # begins a heading, - a point of a list; figures are pasted from a sheet."
        maxLength={5000}
      />
      {isPlain ? null : (
        <p className="text-soft" role="status">
          Read as {sayDescribed(parts)}.
        </p>
      )}
    </>
  );
}
