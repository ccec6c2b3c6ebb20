import { AlertDialog, Dialog } from 'radix-ui';
import type { ComponentProps, ReactNode } from 'react';
import { cx } from './cx.ts';

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

/** A card over the screen, for what has to be settled before the work goes on. */
export function Panel({ title, about, isOpen, onClose, className, children }: PanelProps) {
  return (
    <Dialog.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={VEIL_LOOK} />
        <Dialog.Content
          className={cx(DIALOG_LOOK, className)}
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
  return (
    <AlertDialog.Portal>
      <AlertDialog.Overlay className={VEIL_LOOK} />
      <AlertDialog.Content className={DIALOG_LOOK} {...rest}>
        <AlertDialog.Title className={TITLE_LOOK}>{title}</AlertDialog.Title>
        <AlertDialog.Description asChild>
          <div>{about}</div>
        </AlertDialog.Description>
        {children}
      </AlertDialog.Content>
    </AlertDialog.Portal>
  );
}
