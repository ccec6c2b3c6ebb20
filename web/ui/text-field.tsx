import type { InputHTMLAttributes } from 'react';
import { Field } from './field.tsx';

interface TextFieldProps
  extends Pick<InputHTMLAttributes<HTMLInputElement>, 'type' | 'autoComplete' | 'required' | 'placeholder'> {
  readonly name: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly hint?: string;
  readonly fault?: string | null;
  readonly maxLength?: number;
}

/** One line of text with its name. */
export function TextField({
  name,
  value,
  onChange,
  hint,
  fault = null,
  maxLength = 200,
  ...input
}: TextFieldProps) {
  return (
    <Field name={name} fault={fault} {...(hint ? { hint } : {})}>
      {(control) => (
        <input
          {...control}
          {...input}
          className="input"
          maxLength={maxLength}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Field>
  );
}
