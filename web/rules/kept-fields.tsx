import { useState } from 'react';
import type { Filter } from '#core/deliver/filter.ts';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';

const PARTS: readonly (readonly [part: keyof Filter, name: string, hint: string])[] = [
  ['unwrapped', 'Elements it takes away', 'What is in them stays: figure, picture'],
  ['dropped', 'Elements it drops', 'With all that is in them: figcaption, details'],
  ['attributes', 'Attributes it drops', 'Everywhere, or of one element: class, img srcset'],
  ['styles', 'Styles it drops', 'Everywhere, or of one element: float, figure width'],
];

interface KeptFieldsProps {
  readonly filter: Filter;
  readonly onChange: (filter: Filter) => void;
}

/** What a target does not keep of the HTML that it takes, as words that a comma parts. */
export function KeptFields({ filter, onChange }: KeptFieldsProps) {
  return (
    <div className="grid grid-cols-2 gap-2.5 max-narrow:grid-cols-1">
      {PARTS.map(([part, name, hint]) => (
        <NamesField
          // Learned anew, it says what was learned.
          key={`${part} ${filter[part].join()}`}
          name={name}
          hint={hint}
          names={filter[part]}
          onChange={(names) => onChange({ ...filter, [part]: names })}
        />
      ))}
    </div>
  );
}

interface NamesFieldProps {
  readonly name: string;
  readonly hint: string;
  readonly names: readonly string[];
  readonly onChange: (names: string[]) => void;
}

function NamesField({ name, hint, names, onChange }: NamesFieldProps) {
  const [text, setText] = useState(names.join(', '));
  const keep = () => {
    const typed = text
      .toLowerCase()
      .split(',')
      .map((one) => one.trim().replace(/\s+/g, ' '))
      .filter(Boolean);
    onChange([...new Set(typed)]);
  };
  return (
    <Field name={name} hint={hint}>
      {(control) => (
        <Input
          {...control}
          className="font-mono text-mono"
          value={text}
          maxLength={4000}
          onChange={(event) => setText(event.target.value)}
          onBlur={keep}
        />
      )}
    </Field>
  );
}
