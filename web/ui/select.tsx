import { Check, ChevronDown } from 'lucide-react';
import { Select as Radix } from 'radix-ui';
import { cx } from './cx.ts';
import { useIsDisabled } from './field-set.tsx';
import { INPUT_LOOK } from './input.tsx';
import { ITEM_LOOK, POPOVER_LOOK } from './menu.tsx';

type Choices<T extends string> = readonly (readonly [value: T, words: string])[];

/** What can be chosen; under headings where there are many. */
export type SelectChoices<T extends string> =
  | Choices<T>
  | readonly { readonly heading: string; readonly choices: Choices<T> }[];

interface SelectProps<T extends string> {
  readonly value: T;
  readonly choices: SelectChoices<T>;
  readonly onChoose: (value: T) => void;
  /** Takes the focus once the list has closed, where what was chosen asks for more; answers whether it did. */
  readonly takeFocus?: () => boolean;
  readonly disabled?: boolean;
  readonly className?: string;
  readonly id?: string;
  readonly 'aria-label'?: string;
  readonly 'aria-invalid'?: true;
  readonly 'aria-describedby'?: string;
}

/** Radix keeps the empty value for "nothing chosen", so that a choice whose value is empty goes by another inside. */
const EMPTY = '\u0000';
const inside = (value: string) => (value === '' ? EMPTY : value);

const isGrouped = <T extends string>(
  choices: SelectChoices<T>,
): choices is readonly { readonly heading: string; readonly choices: Choices<T> }[] =>
  choices.some((one) => 'heading' in one);

/** One of a list that opens; letters that are typed go to the choice that begins with them. */
export function Select<T extends string>({
  value,
  choices,
  onChoose,
  takeFocus,
  disabled = false,
  className,
  ...control
}: SelectProps<T>) {
  const isAround = useIsDisabled();
  const all = isGrouped(choices) ? choices.flatMap((group) => group.choices) : choices;
  const words = all.find(([one]) => one === value)?.[1] ?? '';
  return (
    <Radix.Root
      value={inside(value)}
      disabled={disabled || isAround}
      onValueChange={(chosen) => {
        const found = all.find(([one]) => inside(one) === chosen);
        if (found) onChoose(found[0]);
      }}
    >
      <Radix.Trigger
        {...control}
        className={cx(
          INPUT_LOOK,
          'flex cursor-default items-center justify-between gap-1.5 text-left disabled:cursor-not-allowed',
          className,
        )}
      >
        <span className="truncate">
          <Radix.Value>{words}</Radix.Value>
        </span>
        <ChevronDown size={14} className="flex-none" aria-hidden />
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={3}
          collisionPadding={8}
          onCloseAutoFocus={(event) => {
            if (takeFocus?.()) event.preventDefault();
          }}
          className={cx(
            POPOVER_LOOK,
            'max-h-(--radix-select-content-available-height) min-w-(--radix-select-trigger-width)',
          )}
        >
          <Radix.Viewport>
            {isGrouped(choices) ? (
              choices.map((group) => (
                <Radix.Group key={group.heading}>
                  <Radix.Label className="px-2 pt-2 pb-0.5 text-2xs font-semibold text-soft">
                    {group.heading}
                  </Radix.Label>
                  <Items choices={group.choices} />
                </Radix.Group>
              ))
            ) : (
              <Items choices={choices} />
            )}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

function Items<T extends string>({ choices }: { readonly choices: Choices<T> }) {
  return choices.map(([one, words]) => (
    <Radix.Item
      key={one}
      value={inside(one)}
      className={cx(ITEM_LOOK, 'cursor-default justify-between data-[state=checked]:font-strong')}
    >
      <Radix.ItemText>{words}</Radix.ItemText>
      <Radix.ItemIndicator>
        <Check size={13} aria-hidden />
      </Radix.ItemIndicator>
    </Radix.Item>
  ));
}
