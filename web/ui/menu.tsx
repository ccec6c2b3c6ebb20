import { DropdownMenu as Radix } from 'radix-ui';
import type { ComponentProps } from 'react';
import { cx } from './cx.ts';

/** What opens over the screen from a control: a narrower card. It lies over panels too, since it opens in them as well. */
export const POPOVER_LOOK =
  'z-52 min-w-50 max-w-85 rounded-b-sm border border-line border-t-5 border-t-ink bg-panel p-1.5 shadow-card';

/** One of several things in a list that opens. */
export const ITEM_LOOK =
  'flex w-full items-center gap-2 rounded-sm px-2 py-1.5 text-left no-underline outline-none data-highlighted:bg-action-soft hover:bg-action-soft focus-visible:bg-action-soft aria-selected:bg-action-soft data-disabled:opacity-55 forced-colors:data-highlighted:bg-[Highlight] forced-colors:data-highlighted:text-[HighlightText]';

export const Menu = Radix.Root;
export const MenuTrigger = Radix.Trigger;

/** The list that a button opens. */
export function MenuContent({ className, ...rest }: ComponentProps<typeof Radix.Content>) {
  return (
    <Radix.Portal>
      <Radix.Content
        align="start"
        sideOffset={6}
        collisionPadding={8}
        className={cx(
          POPOVER_LOOK,
          'max-h-(--radix-dropdown-menu-content-available-height) overflow-auto',
          className,
        )}
        {...rest}
      />
    </Radix.Portal>
  );
}

export function MenuItem({ className, ...rest }: ComponentProps<typeof Radix.Item>) {
  return <Radix.Item className={cx(ITEM_LOOK, 'cursor-default', className)} {...rest} />;
}

export const MenuRadioGroup = Radix.RadioGroup;

/** One of several answers; the one that holds stands out. */
export function MenuRadioItem({ className, ...rest }: ComponentProps<typeof Radix.RadioItem>) {
  return (
    <Radix.RadioItem
      className={cx(ITEM_LOOK, 'cursor-default data-[state=checked]:font-strong', className)}
      {...rest}
    />
  );
}
