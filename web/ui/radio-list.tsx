import { RadioGroup } from 'radix-ui';
import { type ReactNode, useId } from 'react';

interface RadioListProps<T extends string> {
  readonly about: string;
  readonly value: T;
  readonly choices: readonly (readonly [value: T, words: ReactNode])[];
  readonly onChoose: (value: T) => void;
}

/** One of a few answers that take a line each. */
export function RadioList<T extends string>({ about, value, choices, onChoose }: RadioListProps<T>) {
  const id = useId();
  return (
    <RadioGroup.Root
      aria-label={about}
      value={value}
      onValueChange={(chosen) => {
        const found = choices.find(([one]) => one === chosen);
        if (found) onChoose(found[0]);
      }}
    >
      {choices.map(([one, words]) => (
        <label key={one} htmlFor={`${id}-${one}`} className="flex min-h-7 items-center gap-1.75">
          <RadioGroup.Item
            id={`${id}-${one}`}
            value={one}
            className="mx-0.75 grid size-4.25 flex-none place-items-center rounded-full border border-control bg-panel aria-checked:border-action"
          >
            <RadioGroup.Indicator className="block size-2.25 rounded-full bg-action forced-colors:bg-[Highlight]" />
          </RadioGroup.Item>
          {words}
        </label>
      ))}
    </RadioGroup.Root>
  );
}
