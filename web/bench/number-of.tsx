import { type FormEvent, useEffect, useState } from 'react';
import { FIELD_NAME_LOOK } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';

interface NumberOfProps {
  readonly name: string;
  readonly value: number;
  readonly onNumber: (value: number) => void;
}

/** A number in px that is kept when it is left or Enter is pressed; what is no number is put back. */
export function NumberOf({ name, value, onNumber }: NumberOfProps) {
  const [draft, setDraft] = useState(String(value));
  useEffect(() => setDraft(String(value)), [value]);
  const keep = () => {
    const number = Number(draft.trim());
    if (draft.trim() !== '' && Number.isFinite(number) && number !== value) onNumber(number);
    else setDraft(String(value));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep();
  };
  return (
    <form onSubmit={submit} className="flex min-w-0 flex-col gap-0.75">
      <label className={FIELD_NAME_LOOK} htmlFor={`frame-${name}`}>
        {name}
      </label>
      <Input
        id={`frame-${name}`}
        className="font-mono text-mono"
        inputMode="numeric"
        value={draft}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={keep}
      />
    </form>
  );
}

/** Between nothing and `most`. */
export const clamped = (value: number, most: number) => Math.min(most, Math.max(0, value));
