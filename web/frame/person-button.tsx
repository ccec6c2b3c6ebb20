import type { ButtonHTMLAttributes } from 'react';

interface PersonButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly name: string;
}

/** The person's initials, from which their menu opens. */
export function PersonButton({ name, ...rest }: PersonButtonProps) {
  const initials = name
    .split(' ')
    .map((part) => part.charAt(0))
    .join('');
  return (
    <button
      type="button"
      className="size-7 flex-none rounded-sm bg-person text-2xs font-strong text-white"
      aria-label={`${initials}: ${name}, your menu`}
      {...rest}
    >
      {initials}
    </button>
  );
}
