import { type ReactElement, type ReactNode, useState } from 'react';
import { Popover, PopoverContent, PopoverTrigger } from './popover.tsx';

interface OpensProps {
  /** What opens, for those who cannot see it. */
  readonly about: string;
  /** The button that opens it. */
  readonly trigger: ReactElement;
  /** What opens, drawn anew each time; it is given the way to close it. */
  readonly children: (close: () => void) => ReactNode;
}

/** A button and what it opens beside itself until that is done with. */
export function Opens({ about, trigger, children }: OpensProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <Popover open={isOpen} onOpenChange={setOpen}>
      <PopoverTrigger asChild>{trigger}</PopoverTrigger>
      <PopoverContent aria-label={about}>{children(() => setOpen(false))}</PopoverContent>
    </Popover>
  );
}
