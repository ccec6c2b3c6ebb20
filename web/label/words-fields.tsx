import { Field } from '../ui/field.tsx';

interface TextProps {
  readonly value: string;
  readonly onChange: (value: string) => void;
}

export function CaptionField(props: TextProps) {
  return <LongField name="Caption" {...props} />;
}

export function DescriptionField(props: TextProps) {
  return (
    <LongField name="Long description" hint="For charts and maps: everything that is in them." {...props} />
  );
}

function LongField({
  value,
  onChange,
  ...field
}: TextProps & { readonly name: string; readonly hint?: string }) {
  return (
    <Field {...field}>
      {(control) => (
        <textarea
          {...control}
          className="input"
          maxLength={5000}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Field>
  );
}

interface OnlyHereProps {
  readonly checked: boolean;
  readonly onChange: (checked: boolean) => void;
}

/** Whether words are said for one page only, and not on the piece. */
export function OnlyHere({ checked, onChange }: OnlyHereProps) {
  return (
    <label className="check">
      <input type="checkbox" checked={checked} onChange={(event) => onChange(event.target.checked)} /> For
      this page only
    </label>
  );
}
