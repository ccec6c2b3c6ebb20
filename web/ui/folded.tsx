import { ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import type { ReactNode } from 'react';
import { cx } from './cx.ts';

interface FoldedProps {
  /** As a label says it: soft, and underlined as a way is. */
  readonly isSoft?: boolean;
  /** What is folded away, in words. */
  readonly words: ReactNode;
  readonly className?: string;
  readonly children: ReactNode;
}

/** What most people need not see: its words, and the rest when they are pressed. */
export function Folded({ words, isSoft = false, className, children }: FoldedProps) {
  return (
    <Collapsible.Root className={className}>
      <Collapsible.Trigger
        className={cx(
          'group inline-flex min-h-6 items-center gap-1 text-left',
          isSoft && 'text-soft underline',
        )}
      >
        <ChevronRight size={14} className="flex-none group-data-[state=open]:rotate-90" aria-hidden />
        {words}
      </Collapsible.Trigger>
      <Collapsible.Content forceMount className="data-[state=closed]:hidden">
        {children}
      </Collapsible.Content>
    </Collapsible.Root>
  );
}
