import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { TextArea } from '../ui/input.tsx';

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
        <TextArea
          {...control}
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
    <Checkbox checked={checked} onChange={(isOn) => onChange(isOn)}>
      For this page only
    </Checkbox>
  );
}
