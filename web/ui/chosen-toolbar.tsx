import { Toolbar } from 'radix-ui';
import type { ReactNode } from 'react';

interface ChosenToolbarProps {
  readonly about: string;
  readonly count: number;
  readonly children: ReactNode;
}

/** What can be done with what is chosen: a dark bar over the foot of the screen. */
export function ChosenToolbar({ about, count, children }: ChosenToolbarProps) {
  return (
    <Toolbar.Root
      className="absolute bottom-4 left-1/2 z-5 flex w-max max-w-[calc(100%-20px)] -translate-x-1/2 flex-wrap items-center justify-center gap-x-2 gap-y-1.5 bg-bar px-3.5 py-2 whitespace-nowrap text-bar-ink shadow-card [--focus-ground:transparent] [--focus:var(--color-bar-ink)] max-middle:bottom-2 max-middle:w-[calc(100%-20px)] max-middle:px-2 max-middle:py-1.5"
      aria-label={about}
    >
      <strong>{count} chosen</strong>
      {children}
    </Toolbar.Root>
  );
}
