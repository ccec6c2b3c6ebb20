import { Popover as Radix } from 'radix-ui';
import type { ComponentProps } from 'react';
import { cx } from './cx.ts';
import { POPOVER_LOOK } from './menu.tsx';

export const Popover = Radix.Root;
export const PopoverTrigger = Radix.Trigger;

/** What a button opens beside itself. */
export function PopoverContent({ className, ...rest }: ComponentProps<typeof Radix.Content>) {
  return (
    <Radix.Portal>
      <Radix.Content
        align="start"
        sideOffset={4}
        collisionPadding={8}
        className={cx(POPOVER_LOOK, className)}
        {...rest}
      />
    </Radix.Portal>
  );
}
