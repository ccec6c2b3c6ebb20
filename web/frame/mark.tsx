import { cx } from '../ui/cx.ts';

/** The mark of the product: a card hung on its nail. */
export function Mark({ className = 'h-6 w-5' }: { readonly className?: string }) {
  return (
    <svg
      className={cx('fill-none stroke-current stroke-[1.8]', className)}
      viewBox="0 0 20 24"
      aria-hidden="true"
    >
      <path d="M5 9l5-7 5 7M1.500 9h17v13h-17z" />
      <path d="M1.500 11.500h17" strokeWidth="5" />
    </svg>
  );
}
