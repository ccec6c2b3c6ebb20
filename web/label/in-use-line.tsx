import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Controller, type FieldPathByValue, type FieldValues } from 'react-hook-form';
import { type InUseField, InUseSchema } from '#api/assets.ts';
import { requestJson } from '../api/client.ts';
import type { SaveForm } from '../form/use-save-form.ts';
import { Field } from '../ui/field.tsx';
import { SuggestInput, type SuggestInputProps } from '../ui/suggest-input.tsx';

type InUseInputProps = Omit<SuggestInputProps, 'offered' | 'complete'> & { readonly field: InUseField };

/** One line of text, with what labels say already offered while it is typed; of key words the one that is typed last. */
export function InUseInput({ field, ...props }: InUseInputProps) {
  const isList = field === 'keywords';
  const begins = (isList ? lastOf(props.value) : props.value).trim();
  const { data = [] } = useQuery({
    queryKey: ['in-use', field, begins],
    queryFn: ({ signal }) => requestJson('get /in-use', InUseSchema, { query: { field, begins }, signal }),
    enabled: begins.length >= LEAST_LETTERS,
    placeholderData: keepPreviousData,
    staleTime: 30_000,
  });
  const typed = new Set(props.value.split(SEPARATORS).map((word) => word.trim().toLowerCase()));
  const offered =
    begins.length < LEAST_LETTERS ? [] : data.filter((one) => !isList || !typed.has(one.toLowerCase()));
  return <SuggestInput {...props} offered={offered} {...(isList ? { complete: withLast } : {})} />;
}

/** One letter is the beginning of too much. */
const LEAST_LETTERS = 2;
const SEPARATORS = /[,;]/;

const lastOf = (list: string): string => list.split(SEPARATORS).at(-1) ?? '';

/** The list with a word in the place of the one that was begun, ready for the next. */
const withLast = (list: string, chosen: string): string =>
  `${list.slice(0, list.length - lastOf(list).length).trimEnd()}${SEPARATORS.test(list) ? ' ' : ''}${chosen}, `;

interface InUseLineProps<In extends FieldValues> {
  readonly of: SaveForm<In>;
  readonly name: FieldPathByValue<In, string>;
  readonly label: string;
  readonly field: InUseField;
  readonly hint?: string;
  readonly placeholder?: string;
  readonly maxLength: number;
}

/** The same as a line of a form. */
export function InUseLine<In extends FieldValues>({
  of,
  name,
  label,
  field: about,
  hint,
  placeholder,
  maxLength,
}: InUseLineProps<In>) {
  return (
    <Controller
      control={of.form.control}
      name={name}
      render={({ field: { ref: _ref, ...field }, fieldState }) => (
        <Field
          name={label}
          fault={fieldState.error?.message ?? null}
          {...(hint === undefined ? {} : { hint })}
        >
          {(control) => (
            <InUseInput
              {...control}
              {...field}
              {...(placeholder === undefined ? {} : { placeholder })}
              field={about}
              listOf={`${label} in use`}
              maxLength={maxLength}
            />
          )}
        </Field>
      )}
    />
  );
}
