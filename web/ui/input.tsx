import type { ComponentProps } from 'react';
import { cx } from './cx.ts';

/** How whatever is typed or chosen into looks: its edge, its ground, and that what it holds is wrong. */
export const INPUT_LOOK =
  'min-h-7.5 w-full rounded-sm border border-control bg-panel px-2 py-1 aria-invalid:border-due disabled:text-soft';

export function Input({ className, ...rest }: ComponentProps<'input'>) {
  return <input className={cx(INPUT_LOOK, className)} {...rest} />;
}

export function TextArea({ className, ...rest }: ComponentProps<'textarea'>) {
  return <textarea className={cx(INPUT_LOOK, 'min-h-15.5 resize-y leading-flat', className)} {...rest} />;
}
