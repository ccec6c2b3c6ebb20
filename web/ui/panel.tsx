import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface PanelProps {
  readonly title: string;
  readonly about?: string;
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A card over the screen, for what has to be settled before the work goes on. */
export function Panel({ title, about, isOpen, onClose, children }: PanelProps) {
  return (
    <Dialog.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="dialog-ground" />
        <Dialog.Content className="dialog" {...(about ? {} : { 'aria-describedby': undefined })}>
          <Dialog.Title asChild>
            <h2>{title}</h2>
          </Dialog.Title>
          {about ? <Dialog.Description className="soft">{about}</Dialog.Description> : null}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
