import { useCombobox } from 'downshift';
import { Popover } from 'radix-ui';
import type { ComponentProps } from 'react';
import { cx } from './cx.ts';
import { Input } from './input.tsx';
import { ITEM_LOOK, POPOVER_LOOK } from './menu.tsx';

export interface SuggestInputProps
  extends Pick<
    ComponentProps<'input'>,
    'id' | 'placeholder' | 'disabled' | 'aria-label' | 'aria-invalid' | 'aria-describedby' | 'onBlur'
  > {
  readonly value: string;
  readonly onChange: (value: string) => void;
  /** What is offered for what is typed now, the likeliest first. */
  readonly offered: readonly string[];
  /** What the list is of, for those who cannot see where it hangs. */
  readonly listOf: string;
  /** The whole value once one was chosen: where several are typed, those before it stay. */
  readonly complete?: (value: string, chosen: string) => string;
  readonly maxLength?: number;
  readonly isMono?: boolean;
  readonly className?: string;
}

const CHOSEN_ALONE = (_value: string, chosen: string): string => chosen;

/** One line of text, typed, or chosen from what is offered while it is typed. */
export function SuggestInput({
  value,
  onChange,
  offered,
  listOf,
  complete = CHOSEN_ALONE,
  maxLength = 400,
  isMono = false,
  className,
  onBlur,
  ...control
}: SuggestInputProps) {
  const box = useCombobox<string>({
    items: [...offered],
    inputValue: value,
    selectedItem: null,
    // What is typed is meant: one that is only highlighted takes its place by Enter or a press, not by leaving.
    stateReducer: (state, { type, changes }) =>
      type === useCombobox.stateChangeTypes.InputBlur
        ? { ...state, isOpen: false, highlightedIndex: -1 }
        : changes,
    onSelectedItemChange: ({ selectedItem }) => onChange(complete(value, selectedItem ?? '')),
  });
  const isShown = box.isOpen && offered.length > 0;
  const input = box.getInputProps({
    ...control,
    'aria-labelledby': undefined,
    onBlur,
    // Read at once: told a moment later, the cursor would jump to the end.
    onChange: (event) => onChange(event.currentTarget.value),
    onKeyDown: (event) => {
      // The first press closes the list, the next one what the field stands in.
      if (event.key === 'Escape' && isShown) event.stopPropagation();
      // Nothing of the list is meant: what is typed is sent off at once.
      if (event.key === 'Enter' && box.highlightedIndex < 0) {
        Object.assign(event.nativeEvent, { preventDownshiftDefault: true });
        box.closeMenu();
      }
    },
  });
  return (
    <Popover.Root open={isShown}>
      <Popover.Anchor asChild>
        <Input
          maxLength={maxLength}
          {...input}
          {...control}
          className={cx(isMono && 'font-mono text-mono', className)}
        />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={3}
          collisionPadding={8}
          className={cx(POPOVER_LOOK, 'min-w-(--radix-popover-trigger-width)')}
          onOpenAutoFocus={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => event.preventDefault()}
          role="presentation"
        >
          <ul
            {...box.getMenuProps(
              { 'aria-label': listOf, 'aria-labelledby': undefined },
              // There is only a list while one is shown.
              { suppressRefError: true },
            )}
          >
            {offered.map((one, index) => (
              <li
                key={one}
                {...box.getItemProps({ item: one, index })}
                className={cx(
                  ITEM_LOOK,
                  'cursor-default',
                  isMono && 'font-mono text-mono',
                  box.highlightedIndex === index && 'bg-action-soft forced-colors:bg-[Highlight]',
                )}
              >
                {one}
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
