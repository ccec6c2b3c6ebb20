import { MeasuredField } from '../form/measured-field.tsx';

interface NumberOfProps {
  readonly name: string;
  readonly value: number;
  readonly onNumber: (value: number) => void;
}

/** A number in px of the original. */
export function NumberOf({ name, value, onNumber }: NumberOfProps) {
  return (
    <MeasuredField
      name={name}
      says={String(value)}
      inputMode="numeric"
      read={(text) => {
        const number = Number(text.replace(/px$/, '').trim());
        return text !== '' && Number.isFinite(number)
          ? { value: number }
          : { fault: 'A number of px is needed.' };
      }}
      onKeep={onNumber}
    />
  );
}

/** Between nothing and `most`. */
export const clamped = (value: number, most: number) => Math.min(most, Math.max(0, value));
