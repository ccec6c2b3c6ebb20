import { RadioGroup, ToggleGroup } from 'radix-ui';
import type { ReactNode } from 'react';
import { cx } from './cx.ts';

const ROW_LOOK = 'flex flex-wrap gap-1.25';

/** A short answer, side by side with others; filled when it holds. */
export const CHIP_LOOK = cx(
  'min-h-6 cursor-pointer rounded-sm border border-line bg-panel px-2 py-0.5 font-mono text-sm leading-4.5 font-normal',
  'aria-checked:border-ink aria-checked:bg-ink aria-checked:text-panel',
  'aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-panel',
  'disabled:cursor-not-allowed disabled:opacity-55',
  'forced-colors:aria-checked:bg-[Highlight] forced-colors:aria-checked:text-[HighlightText]',
  'forced-colors:aria-pressed:bg-[Highlight] forced-colors:aria-pressed:text-[HighlightText]',
);

interface OneOfProps<T extends string> {
  readonly about: string;
  readonly value: T | null;
  readonly choices: readonly (readonly [value: T, words: ReactNode])[];
  readonly onChoose: (value: T) => void;
  readonly className?: string;
  /** What stands in the row after the chips. */
  readonly children?: ReactNode;
}

/** Exactly one of a few; arrows choose the next. */
export function OneOf<T extends string>({
  about,
  value,
  choices,
  onChoose,
  className,
  children,
}: OneOfProps<T>) {
  return (
    <RadioGroup.Root
      aria-label={about}
      value={value ?? ''}
      onValueChange={(chosen) => {
        const found = choices.find(([one]) => one === chosen);
        if (found) onChoose(found[0]);
      }}
      className={cx(ROW_LOOK, className)}
    >
      {choices.map(([one, words]) => (
        <RadioGroup.Item key={one} value={one} className={CHIP_LOOK}>
          {words}
        </RadioGroup.Item>
      ))}
      {children}
    </RadioGroup.Root>
  );
}

interface ChipsProps<T extends string> {
  readonly about: string;
  /** Those that hold. */
  readonly pressed: readonly T[];
  readonly choices: readonly (readonly [value: T, words: ReactNode])[];
  readonly onPress: (value: T) => void;
  /** Pressing one leaves the focus where it is, in the text that it is about. */
  readonly keepsFocus?: boolean;
  readonly className?: string;
  readonly children?: ReactNode;
}

/** Buttons that hold or do not; arrows go from one to the next, and nothing changes before one is pressed. */
export function Chips<T extends string>({
  about,
  pressed,
  choices,
  onPress,
  keepsFocus = false,
  className,
  children,
}: ChipsProps<T>) {
  const press = (next: readonly string[]) => {
    const changed = choices.find(([one]) => next.includes(one) !== pressed.includes(one));
    if (changed) onPress(changed[0]);
  };
  return (
    <ToggleGroup.Root
      type="multiple"
      role="group"
      aria-label={about}
      value={[...pressed]}
      onValueChange={press}
      className={cx(ROW_LOOK, className)}
    >
      {choices.map(([one, words]) => (
        <ToggleGroup.Item
          key={one}
          value={one}
          className={CHIP_LOOK}
          {...(keepsFocus ? { onMouseDown: (event) => event.preventDefault() } : {})}
        >
          {words}
        </ToggleGroup.Item>
      ))}
      {children}
    </ToggleGroup.Root>
  );
}
