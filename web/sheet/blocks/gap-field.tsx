import * as v from 'valibot';
import { MeasuredField, type Read } from '../../form/measured-field.tsx';

interface GapFieldProps {
  readonly gap: number;
  /** What of a page such a gap may be. */
  readonly schema: v.GenericSchema<unknown, number>;
  readonly onKeep: (gap: number) => void;
}

/** The px between what stands side by side. */
export function GapField({ gap, schema, onKeep }: GapFieldProps) {
  return (
    <MeasuredField
      name="Gap"
      says={`${gap} px`}
      read={(text) => readGap(text, schema)}
      onKeep={onKeep}
      isBeside
      isSmall
    />
  );
}

function readGap(text: string, schema: GapFieldProps['schema']): Read<number> {
  const number = /^\s*(\d{1,4})\s*(?:px)?\s*$/.exec(text)?.[1];
  if (number === undefined) return { fault: 'A gap is written as 24 px.' };
  const read = v.safeParse(schema, Number(number));
  return read.success ? { value: read.output } : { fault: read.issues[0].message };
}
