import { useState } from 'react';
import { type Parameter, readValue, sayTime, sayValueFault } from '#core/embed/parameters.ts';
import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
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
  const shown = value === undefined ? '' : parameter.type === 'time' ? sayTime(Number(value)) : value;
  const [text, setText] = useState(shown);
  const [fault, setFault] = useState<string | null>(null);
  const keep = () => {
    if (text.trim() === shown) return;
    const read = text.trim() === '' ? undefined : readValue(parameter, text.trim());
    if (text.trim() !== '' && read === undefined) {
      setFault(sayValueFault(parameter));
      return;
    }
    setFault(null);
    onChange(read);
  };
  return (
    <Field isBeside name={parameter.label} fault={fault}>
      {(control) => (
        <Input
          {...control}
          className="font-mono text-mono"
          placeholder={parameter.type === 'time' ? '0:00' : ''}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={keep}
          onKeyDown={(event) => event.key === 'Enter' && keep()}
        />
      )}
    </Field>
  );
}
