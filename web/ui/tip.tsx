import { Tooltip } from 'radix-ui';
import type { ReactElement } from 'react';

/** A word for a control that shows only a drawing. */
export function Tip({ words, children }: { readonly words: string; readonly children: ReactElement }) {
  return (
    <Tooltip.Root delayDuration={300}>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content className="tooltip" sideOffset={6}>
          {words}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
