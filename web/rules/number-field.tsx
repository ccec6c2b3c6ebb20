import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';

interface NumberFieldProps {
  readonly name: string;
  readonly value: number;
  readonly hint?: string;
  readonly onChange: (value: number) => void;
}

/** A whole number; anything else typed is left out. */
export function NumberField({ name, value, hint, onChange }: NumberFieldProps) {
  return (
    <Field name={name} {...(hint ? { hint } : {})}>
      {(control) => (
        <Input
          {...control}
          className="font-mono text-mono"
          inputMode="numeric"
          value={value}
          onChange={(event) => onChange(Number(event.target.value.replace(/\D/g, '').slice(0, 9)))}
        />
      )}
    </Field>
  );
}

/** "480, 800, 1120" as numbers; what is no number is left out. */
export function readNumbers(text: string): number[] {
  return text
    .split(/[^\d]+/)
    .filter(Boolean)
    .map(Number);
}
