import type { ComponentProps, FormHTMLAttributes, HTMLInputAutoCompleteAttribute, ReactNode } from 'react';
import {
  Controller,
  type ControllerRenderProps,
  type FieldPathByValue,
  type FieldPathValue,
  type FieldValues,
} from 'react-hook-form';
import { Checkbox } from '../ui/checkbox.tsx';
import { cx } from '../ui/cx.ts';
import { DateInput } from '../ui/date-input.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { FolderInput } from '../ui/folder-input.tsx';
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
  readonly inputMode?: 'numeric' | 'text';
  readonly autoFocus?: boolean;
}

interface ControlledProps<In extends FieldValues, Name extends FieldPathByValue<In, string>> {
  readonly of: FieldProps<In, string> & { readonly name: Name };
  readonly children: (
    control: Parameters<ComponentProps<typeof Field>['children']>[0],
    field: ControllerRenderProps<In, Name>,
  ) => ReactNode;
}

/** A named control of a form, with its fault in words and what it hints at. */
function Controlled<In extends FieldValues, Name extends FieldPathByValue<In, string>>({
  of: { of, name, label, hint, className },
  children,
}: ControlledProps<In, Name>) {
  return (
    <Controller
      control={of.form.control}
      name={name}
      render={({ field, fieldState }) => (
        <Field
          name={label}
          fault={fieldState.error?.message ?? null}
          {...(hint === undefined ? {} : { hint })}
          {...(className === undefined ? {} : { className })}
        >
          {(control) => children(control, field)}
        </Field>
      )}
    />
  );
}

/** One line of text. */
export function Line<In extends FieldValues>(props: LineProps<In>) {
  const {
    of: _of,
    name: _name,
    label: _label,
    hint: _hint,
    className: _class,
    isMono = false,
    ...input
  } = props;
  return (
    <Controlled of={props}>
      {(control, field) => (
        <Input {...control} {...input} {...field} className={cx(isMono && 'font-mono text-mono')} />
      )}
    </Controlled>
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
  const { disabled = false, maxLength, rows } = props;
  return (
    <Controlled of={props}>
      {(control, field) => (
        <TextArea {...control} {...field} disabled={disabled} maxLength={maxLength} rows={rows} />
      )}
    </Controlled>
  );
}

/** A date, typed or chosen. */
export function DateLine<In extends FieldValues>(props: FieldProps<In, string>) {
  return (
    <Controlled of={props}>
      {(control, { onBlur, ...field }) => <DateInput {...control} {...field} onSettle={onBlur} />}
    </Controlled>
  );
}

/** A folder, typed or chosen. */
export function FolderLine<In extends FieldValues>(props: FieldProps<In, string>) {
  return (
    <Controlled of={props}>
      {(control, { ref: _ref, ...field }) => <FolderInput {...control} {...field} />}
    </Controlled>
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
  const { choices, disabled = false } = props;
  return (
    <Controlled of={props}>
      {(control, { value, onChange }) => (
        <Select {...control} disabled={disabled} value={value} choices={choices} onChoose={onChange} />
      )}
    </Controlled>
  );
}
