import { Check } from 'lucide-react';
import { Checkbox as Radix } from 'radix-ui';
import { type ReactNode, useId } from 'react';
import { cx } from './cx.ts';

interface BoxProps {
  readonly checked: boolean;
  readonly onChange: (isOn: boolean) => void;
  readonly disabled?: boolean;
  readonly id?: string;
  readonly 'aria-label'?: string;
  readonly 'aria-labelledby'?: string;
  readonly 'aria-describedby'?: string;
  readonly className?: string;
}

/** The box alone, where its name stands elsewhere: in the head of a column, beside a picture. */
export function CheckBox({ checked, onChange, className, ...rest }: BoxProps) {
  return (
    <Radix.Root
      checked={checked}
      onCheckedChange={(state) => onChange(state === true)}
      className={cx(
        'grid size-4.25 flex-none place-items-center rounded-xs border border-control bg-panel text-action-ink',
        'data-[state=checked]:border-action data-[state=checked]:bg-action',
        // Whoever may only read has to see what is so.
        'disabled:cursor-not-allowed disabled:bg-hairline disabled:text-panel disabled:data-[state=checked]:border-soft disabled:data-[state=checked]:bg-soft',
        'forced-colors:data-[state=checked]:bg-[Highlight] forced-colors:data-[state=checked]:text-[HighlightText]',
        className,
      )}
      {...rest}
    >
      <Radix.Indicator>
        <Check size={13} strokeWidth={3} aria-hidden />
      </Radix.Indicator>
    </Radix.Root>
  );
}

/** Something that is so or not so, in words. */
export function Checkbox({
  className,
  children,
  ...box
}: Omit<BoxProps, 'id'> & { readonly children: ReactNode }) {
  const id = useId();
  return (
    <label htmlFor={id} className={cx('flex min-h-7 items-center gap-1.75', className)}>
      <CheckBox id={id} className="mx-0.75" {...box} />
      {children}
    </label>
  );
}
