import { cva, type VariantProps } from 'class-variance-authority';
import type { ButtonHTMLAttributes } from 'react';
import { Link, type LinkProps } from 'react-router';
import { cx } from './cx.ts';

/** How a button looks, for whatever is pressed like one. */
export const buttonLook = cva('disabled:cursor-not-allowed disabled:opacity-55', {
  variants: {
    kind: {
      plain:
        'border-ink bg-panel text-ink hover:bg-action-soft aria-pressed:border-action aria-pressed:bg-action-soft forced-colors:aria-pressed:outline-2',
      action: 'border-action bg-action text-action-ink hover:brightness-108',
      /** On the dark bar over the screen. */
      bar: 'border-bar-line text-bar-ink hover:bg-white/10',
      quiet: 'border-transparent text-ink hover:bg-action-soft',
      /** Among words: underlined as a link is, and as high as a finger needs. */
      link: 'inline-flex min-h-6 items-center justify-center gap-1.5 py-0.5 whitespace-nowrap text-ink underline hover:bg-action-soft in-data-label-row:justify-self-start in-data-label-row:text-soft',
    },
  },
  compoundVariants: [
    {
      kind: ['plain', 'action', 'bar', 'quiet'],
      class:
        'inline-flex min-h-7.5 items-center justify-center gap-1.5 rounded-sm border px-2.75 py-1 font-semibold whitespace-nowrap no-underline',
    },
  ],
  defaultVariants: { kind: 'plain' },
});

type Look = VariantProps<typeof buttonLook>;
export type ButtonKind = Look['kind'];

export function Button({
  kind,
  className,
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & Look) {
  return <button type={type} className={cx(buttonLook({ kind }), className)} {...rest} />;
}

/** A way to another screen that stands where buttons do. */
export function LinkButton({ kind, className, ...rest }: LinkProps & Look) {
  return <Link className={cx(buttonLook({ kind }), className)} {...rest} />;
}
