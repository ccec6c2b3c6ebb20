import type { FormHTMLAttributes, HTMLInputAutoCompleteAttribute, ReactNode } from 'react';
import { Controller, type FieldPathByValue, type FieldPathValue, type FieldValues } from 'react-hook-form';
import { Checkbox } from '../ui/checkbox.tsx';
import { cx } from '../ui/cx.ts';
import { DateInput } from '../ui/date-input.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input, TextArea } from '../ui/input.tsx';
import { Select, type SelectChoices } from '../ui/select.tsx';
import type { SaveForm } from './use-save-form.ts';

interface FormProps<In extends FieldValues> extends FormHTMLAttributes<HTMLFormElement> {
  readonly of: SaveForm<In>;
}

/** The fields of a form one under the other, and why it could not be saved. */
export function Form<In extends FieldValues>({ of, className, children, ...rest }: FormProps<In>) {
  return (
    <form noValidate className={cx('grid gap-2.25', className)} onSubmit={of.submit} {...rest}>
      {children}
      <Fault says={of.fault} />
    </form>
  );
}

interface FieldProps<In extends FieldValues, Value> {
  readonly of: SaveForm<In>;
  readonly name: FieldPathByValue<In, Value>;
  readonly label: string;
  readonly hint?: string;
  readonly className?: string;
}

interface LineProps<In extends FieldValues> extends FieldProps<In, string> {
  readonly type?: 'text' | 'email' | 'password' | 'search' | 'number';
  readonly min?: number;
  readonly max?: number;
  readonly autoComplete?: HTMLInputAutoCompleteAttribute;
  readonly placeholder?: string;
  readonly maxLength?: number;
  readonly isMono?: boolean;
  readonly list?: string;
  readonly inputMode?: 'numeric' | 'text';
  readonly autoFocus?: boolean;
}

/** What is said at a field: its fault in words, and what it hints at. */
function said(
  { hint, className }: { readonly hint?: string; readonly className?: string },
  fault: string | undefined,
) {
  return {
    fault: fault ?? null,
    ...(hint === undefined ? {} : { hint }),
    ...(className === undefined ? {} : { className }),
  };
}

/** One line of text. */
export function Line<In extends FieldValues>(props: LineProps<In>) {
  const { of, name, label, hint: _hint, className: _class, isMono = false, ...input } = props;
  return (
    <Controller
      control={of.form.control}
      name={name}
      render={({ field, fieldState }) => (
        <Field name={label} {...said(props, fieldState.error?.message)}>
          {(control) => (
            <Input {...control} {...input} {...field} className={cx(isMono && 'font-mono text-mono')} />
          )}
        </Field>
      )}
    />
  );
}

/** Text of several lines. */
export function Lines<In extends FieldValues>(
  props: FieldProps<In, string> & {
    readonly maxLength?: number;
    readonly disabled?: boolean;
    readonly rows?: number;
  },
) {
  const { of, name, label, disabled = false, maxLength, rows } = props;
  return (
    <Controller
      control={of.form.control}
      name={name}
      render={({ field, fieldState }) => (
        <Field name={label} {...said(props, fieldState.error?.message)}>
          {(control) => (
            <TextArea {...control} {...field} disabled={disabled} maxLength={maxLength} rows={rows} />
          )}
        </Field>
      )}
    />
  );
}

/** A date, typed or chosen. */
export function DateLine<In extends FieldValues>(props: FieldProps<In, string>) {
  const { of, name, label } = props;
  return (
    <Controller
      control={of.form.control}
      name={name}
      render={({ field: { onBlur, ref: _ref, ...field }, fieldState }) => (
        <Field name={label} {...said(props, fieldState.error?.message)}>
          {(control) => <DateInput {...control} {...field} onSettle={onBlur} />}
        </Field>
      )}
    />
  );
}

/** Something that is so or not so. */
export function Box<In extends FieldValues>({
  of,
  name,
  children,
}: Pick<FieldProps<In, boolean>, 'of' | 'name'> & { readonly children: ReactNode }) {
  return (
    <Controller
      control={of.form.control}
      name={name}
      render={({ field }) => (
        <Checkbox checked={field.value === true} onChange={field.onChange}>
          {children}
        </Checkbox>
      )}
    />
  );
}

/** One of a list. */
export function OneOfList<In extends FieldValues, Name extends FieldPathByValue<In, string>>(
  props: Omit<FieldProps<In, string>, 'name'> & {
    readonly name: Name;
    readonly choices: SelectChoices<FieldPathValue<In, Name> & string>;
    readonly disabled?: boolean;
  },
) {
  const { of, name, label, choices, disabled = false } = props;
  return (
    <Controller
      control={of.form.control}
      name={name}
      render={({ field: { value, onChange }, fieldState }) => (
        <Field name={label} {...said(props, fieldState.error?.message)}>
          {(control) => (
            <Select {...control} disabled={disabled} value={value} choices={choices} onChoose={onChange} />
          )}
        </Field>
      )}
    />
  );
}
