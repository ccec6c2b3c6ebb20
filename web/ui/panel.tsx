import { AlertDialog, Dialog } from 'radix-ui';
import { type ComponentProps, type ReactNode, useRef, useState } from 'react';
import { cx } from './cx.ts';
import { holderOfFocus } from './held-focus.ts';

export const VEIL_LOOK = 'fixed inset-0 z-50 bg-veil';
const DIALOG_LOOK =
  'fixed top-[12vh] left-1/2 z-51 max-h-[80vh] w-[min(620px,calc(100vw-24px))] -translate-x-1/2 overflow-auto border-ink border-t-7 bg-panel px-5 py-4.5 shadow-card';
const TITLE_LOOK = 'mb-1 text-2xl';

interface PanelProps {
  readonly title: string;
  readonly about?: string;
  readonly isOpen: boolean;
  readonly onClose: () => void;
  readonly className?: string;
  readonly children: ReactNode;
}

/**
 * Gives the focus back to what had it before a dialog opened; to the screen where that is gone, as the item of a menu
 * is. The library does it for dialogs that a trigger of its own opened, and leaves it nowhere with all others.
 */
function giveBack(before: Element | null): void {
  const isThere = before instanceof HTMLElement && before.isConnected && before !== document.body;
  (isThere ? before : document.querySelector('main'))?.focus();
}

/** What had the focus when a dialog was opened: asked while it is drawn, before a field in it takes the focus. */
function useBefore(isOpen: boolean) {
  const [before, setBefore] = useState<{ isOpen: boolean; element: Element | null }>({
    isOpen,
    element: isOpen ? holderOfFocus() : null,
  });
  if (isOpen !== before.isOpen) setBefore({ isOpen, element: isOpen ? holderOfFocus() : before.element });
  return before.element;
}

/** A card over the screen, for what has to be settled before the work goes on. */
export function Panel({ title, about, isOpen, onClose, className, children }: PanelProps) {
  const before = useBefore(isOpen);
  return (
    <Dialog.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={VEIL_LOOK} />
        <Dialog.Content
          className={cx(DIALOG_LOOK, className)}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            giveBack(before);
          }}
          {...(about ? {} : { 'aria-describedby': undefined })}
        >
          <Dialog.Title className={TITLE_LOOK}>{title}</Dialog.Title>
          {about ? <Dialog.Description className="text-soft">{about}</Dialog.Description> : null}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

export const Alert = AlertDialog.Root;
export const AlertTrigger = AlertDialog.Trigger;
export const AlertAction = AlertDialog.Action;
export const AlertCancel = AlertDialog.Cancel;

/** A question that has to be answered: what would happen, and the ways out of it. */
export function AlertContent({
  title,
  about,
  children,
  ...rest
}: Omit<ComponentProps<typeof AlertDialog.Content>, 'about' | 'title'> & {
  readonly title: string;
  readonly about: ReactNode;
}) {
  const before = useRef<Element | null>(null);
  return (
    <AlertDialog.Portal>
      <AlertDialog.Overlay className={VEIL_LOOK} />
      <AlertDialog.Content
        className={DIALOG_LOOK}
        onOpenAutoFocus={() => {
          before.current = holderOfFocus();
        }}
        onCloseAutoFocus={(event) => {
          event.preventDefault();
          giveBack(before.current);
        }}
        {...rest}
      >
        <AlertDialog.Title className={TITLE_LOOK}>{title}</AlertDialog.Title>
        <AlertDialog.Description asChild>
          <div>{about}</div>
        </AlertDialog.Description>
        {children}
      </AlertDialog.Content>
    </AlertDialog.Portal>
  );
}
