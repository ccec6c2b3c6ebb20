import { cx } from './cx.ts';

export const FAULT_LOOK = 'text-due text-sm';

/** Why something could not be done, said as soon as it is known; nothing while there is no fault. */
export function Fault({ says, className }: { readonly says: string | null; readonly className?: string }) {
  return says ? (
    <p className={cx(FAULT_LOOK, className)} role="alert">
      {says}
    </p>
  ) : null;
}
