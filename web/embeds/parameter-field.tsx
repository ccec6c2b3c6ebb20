import { type Parameter, readTime, readValue, sayTime, sayValueFault } from '#core/embed/parameters.ts';
import { MeasuredField } from '../form/measured-field.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { Select } from '../ui/select.tsx';

interface ParameterFieldProps {
  readonly parameter: Parameter;
  /** As it stands in the address; undefined where it is left out. */
  readonly value: string | undefined;
  readonly onChange: (value: string | undefined) => void;
}

/** One setting of a host's address as a form row. */
export function ParameterField({ parameter, value, onChange }: ParameterFieldProps) {
  switch (parameter.type) {
    case 'switch':
      return (
        <Checkbox
          checked={value === parameter.on}
          onChange={(isOn) => onChange(isOn ? parameter.on : (parameter.off ?? undefined))}
        >
          {parameter.label}
        </Checkbox>
      );
    case 'choice':
      return (
        <Field isBeside name={parameter.label}>
          {(control) => (
            <Select
              {...control}
              value={value ?? ''}
              choices={[
                ['', 'As its host likes'],
                ...parameter.choices.map((choice) => [choice.value, choice.label] as const),
              ]}
              onChoose={(chosen) => onChange(chosen || undefined)}
            />
          )}
        </Field>
      );
    default:
      return <WrittenParameter key={value} parameter={parameter} value={value} onChange={onChange} />;
  }
}

/** Typed freely; what does not fit stays in the field with its reason. */
function WrittenParameter({ parameter, value, onChange }: ParameterFieldProps) {
  return (
    <MeasuredField<string | undefined>
      isBeside
      name={parameter.label}
      says={value === undefined ? '' : parameter.type === 'time' ? sayTime(readTime(value) ?? 0) : value}
      placeholder={parameter.type === 'time' ? '0:00' : ''}
      maxLength={1500}
      read={(text) => {
        if (text === '') return { value: undefined };
        const read = readValue(parameter, text);
        return read === undefined ? { fault: sayValueFault(parameter) } : { value: read };
      }}
      onKeep={onChange}
    />
  );
}
