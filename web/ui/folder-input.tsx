import { useCombobox } from 'downshift';
import { Popover } from 'radix-ui';
import type { ComponentProps } from 'react';
import { cx } from './cx.ts';
import { useFolderPaths } from './folder-paths.ts';
import { Input } from './input.tsx';
import { ITEM_LOOK, POPOVER_LOOK } from './menu.tsx';

interface FolderInputProps
  extends Pick<
    ComponentProps<'input'>,
    'id' | 'placeholder' | 'disabled' | 'aria-label' | 'aria-invalid' | 'aria-describedby' | 'onBlur'
  > {
  readonly value: string;
  readonly onChange: (folder: string) => void;
  readonly className?: string;
}

/** As many as are read at a glance; more letters find the others. */
const MOST_OFFERED = 8;

/** A folder, typed or chosen from those that there are; one that is not there yet is made by being named. */
export function FolderInput({ value, onChange, className, onBlur, ...control }: FolderInputProps) {
  const { made, missing } = useFolderPaths();
  const offered = offeredFor(value, [...made, ...missing]);
  const box = useCombobox<string>({
    items: [...offered],
    inputValue: value,
    selectedItem: null,
    // What is typed is the folder: one that is only highlighted becomes it by Enter or a press, not by leaving.
    stateReducer: (state, { type, changes }) =>
      type === useCombobox.stateChangeTypes.InputBlur
        ? { ...state, isOpen: false, highlightedIndex: -1 }
        : changes,
    onSelectedItemChange: ({ selectedItem }) => onChange(selectedItem ?? ''),
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
        <Input maxLength={400} {...input} {...control} className={cx('font-mono text-mono', className)} />
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
              { 'aria-label': 'Folders', 'aria-labelledby': undefined },
              // There is only a list while one is shown.
              { suppressRefError: true },
            )}
          >
            {offered.map((path, index) => (
              <li
                key={path}
                {...box.getItemProps({ item: path, index })}
                className={cx(
                  ITEM_LOOK,
                  'cursor-default font-mono text-mono',
                  box.highlightedIndex === index && 'bg-action-soft forced-colors:bg-[Highlight]',
                )}
              >
                {path}
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** The folders in which every word that is typed occurs; all of them while the field holds one of them. */
export function offeredFor(typed: string, all: readonly string[]): readonly string[] {
  const parts = all.includes(typed) ? [] : typed.toLowerCase().split(/[\s/]+/u);
  const fits = (path: string) => parts.every((part) => path.toLowerCase().includes(part));
  return all.filter(fits).slice(0, MOST_OFFERED);
}
