import type { ReactNode } from 'react';
import * as v from 'valibot';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { Menu, MenuContent, MenuRadioGroup, MenuRadioItem, MenuTrigger } from '../ui/menu.tsx';
import { Opens } from '../ui/opens.tsx';

/** A question in plain English whose underlined parts are its controls. */
export function Sentence({ children }: { readonly children: ReactNode }) {
  return <p className="text-3xl leading-normal font-stretch-94% max-narrow:text-xl">{children}</p>;
}

/** The part of a sentence that can be changed. */
export const PART_LOOK =
  'border-action border-b-2 px-px font-stretch-94% font-strong leading-tight hover:bg-action-soft data-[state=open]:bg-action-soft';

interface ChoiceProps<T extends string> {
  /** What the part is about, for those who hear it. */
  readonly about: string;
  readonly value: T;
  readonly choices: readonly (readonly [T, string])[];
  readonly onChoose: (value: T) => void;
}

/** A part with a few answers. */
export function Choice<T extends string>({ about, value, choices, onChoose }: ChoiceProps<T>) {
  const words = choices.find(([one]) => one === value)?.[1] ?? value;
  return (
    <Menu>
      <MenuTrigger asChild>
        <button type="button" className={PART_LOOK} aria-label={`${about}: ${words}`}>
          {words}
        </button>
      </MenuTrigger>
      <MenuContent>
        <MenuRadioGroup
          value={value}
          onValueChange={(next) => onChoose(choices.find(([one]) => one === next)?.[0] ?? value)}
        >
          {choices.map(([one, says]) => (
            <MenuRadioItem key={one} value={one} style={one === value ? { fontWeight: 650 } : {}}>
              {says}
            </MenuRadioItem>
          ))}
        </MenuRadioGroup>
      </MenuContent>
    </Menu>
  );
}

interface WrittenProps {
  readonly about: string;
  readonly value: string;
  /** What stands in the sentence for the value. */
  readonly words: string;
  readonly isNumber?: boolean;
  readonly onWrite: (value: string) => void;
}

/** A part that is typed: words to look for, or a number. */
export function Written({ about, value, words, isNumber = false, onWrite }: WrittenProps) {
  return (
    <Opens
      about={about}
      trigger={
        <button type="button" className={PART_LOOK} aria-label={`${about}: ${words}`}>
          {words}
        </button>
      }
    >
      {(close) => (
        <WrittenForm
          about={about}
          value={value}
          isNumber={isNumber}
          onWrite={(next) => {
            close();
            onWrite(next);
          }}
        />
      )}
    </Opens>
  );
}

/** "at least 1600 px wide", or "of any width". Answers the digits that were typed; "0" for any. */
export function LeastWidth({
  width,
  onWrite,
}: {
  readonly width: number;
  readonly onWrite: (width: string) => void;
}) {
  const part = (
    <Written
      about="Least width"
      value={width > 0 ? String(width) : ''}
      words={width > 0 ? `${width} px` : 'any width'}
      isNumber
      onWrite={(written) => onWrite(written || '0')}
    />
  );
  return width > 0 ? <>at least {part} wide</> : <>of {part}</>;
}

const WrittenSchema = v.object({ text: v.pipe(v.string(), v.trim(), v.maxLength(200)) });

function WrittenForm({ about, value, isNumber, onWrite }: Omit<WrittenProps, 'words'>) {
  const form = useSaveForm({
    schema: WrittenSchema,
    defaults: { text: value },
    save: ({ text }) => onWrite(isNumber ? text.replace(/\D/g, '') : text),
  });
  return (
    <Form of={form} className="flex items-end gap-2 p-1.5">
      <Line of={form} name="text" label={about} inputMode={isNumber ? 'numeric' : 'text'} />
      <Button kind="action" type="submit">
        Show
      </Button>
    </Form>
  );
}
