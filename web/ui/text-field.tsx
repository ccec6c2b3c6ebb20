import type { InputHTMLAttributes } from 'react';
import { Field } from './field.tsx';
import { Input } from './input.tsx';

interface TextFieldProps
  extends Pick<InputHTMLAttributes<HTMLInputElement>, 'type' | 'autoComplete' | 'required' | 'placeholder'> {
  readonly name: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly hint?: string;
  readonly fault?: string | null;
  readonly maxLength?: number;
  readonly className?: string;
}

/** One line of text with its name. */
export function TextField({
  name,
  value,
  onChange,
  hint,
  fault = null,
  maxLength = 200,
  className,
  ...input
}: TextFieldProps) {
  return (
    <Field name={name} fault={fault} {...(hint ? { hint } : {})} {...(className ? { className } : {})}>
      {(control) => (
        <Input
          {...control}
          {...input}
          maxLength={maxLength}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
    </Field>
  );
}
