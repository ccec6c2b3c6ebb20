import { useState } from 'react';
import { type Parameter, readValue, sayTime, sayValueFault } from '#core/embed/parameters.ts';
import { Field } from '../ui/field.tsx';

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
        <label className="check">
          <input
            type="checkbox"
            checked={value === parameter.on}
            onChange={(event) => onChange(event.target.checked ? parameter.on : (parameter.off ?? undefined))}
          />
          {parameter.label}
        </label>
      );
    case 'choice':
      return (
        <Field name={parameter.label}>
          {(control) => (
            <select
              {...control}
              className="input"
              value={value ?? ''}
              onChange={(event) => onChange(event.target.value || undefined)}
            >
              <option value="">As its host likes</option>
              {parameter.choices.map((choice) => (
                <option key={choice.value} value={choice.value}>
                  {choice.label}
                </option>
              ))}
            </select>
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
    <Field name={parameter.label} fault={fault}>
      {(control) => (
        <input
          {...control}
          className="input mono"
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
