import { Tooltip } from 'radix-ui';
import type { ReactElement } from 'react';

export interface TipProps {
  readonly words: string;
  readonly children: ReactElement;
}

export default function TipShown({ words, children }: TipProps) {
  return (
    <Tooltip.Provider>
      <Tooltip.Root delayDuration={300}>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            className="z-60 max-w-65 rounded-sm bg-bar px-2 py-1 text-sm text-bar-ink"
            sideOffset={6}
          >
            {words}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
