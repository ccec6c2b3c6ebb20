import * as v from 'valibot';
import { GapSchema } from '#core/page/blocks/gap.ts';
import { MeasuredField, type Read } from '../../form/measured-field.tsx';

interface GapFieldProps {
  readonly gap: number;
  readonly onKeep: (gap: number) => void;
}

/** The px between what stands side by side. */
export function GapField({ gap, onKeep }: GapFieldProps) {
  return <MeasuredField name="Gap" says={`${gap} px`} read={readGap} onKeep={onKeep} isBeside isSmall />;
}

function readGap(text: string): Read<number> {
  const number = /^\s*(\d{1,4})\s*(?:px)?\s*$/.exec(text)?.[1];
  if (number === undefined) return { fault: 'A gap is written as 24 px.' };
  const read = v.safeParse(GapSchema, Number(number));
  return read.success ? { value: read.output } : { fault: read.issues[0].message };
}
