import { type ReactNode, useId } from 'react';
import { cx } from './cx.ts';
import { FAULT_LOOK } from './fault.tsx';

const FIELD_NAME_LOOK = 'font-semibold text-2xs text-soft';

const BESIDE_LOOK = 'narrow:grid narrow:grid-cols-[132px_minmax(0,1fr)] narrow:items-center narrow:gap-x-3';

interface FieldProps {
  readonly name: string;
  readonly fault?: string | null;
  readonly hint?: string;
  /** The name stands at the left of the control, where there is room. */
  readonly isBeside?: boolean;
  /** The name is heard and not seen, where the place says what it is for. */
  readonly isNameHidden?: boolean;
  readonly className?: string;
  /** Draws the control with the id and descriptions it has to carry. */
  readonly children: (control: {
    id: string;
    'aria-invalid'?: true;
    'aria-describedby'?: string;
  }) => ReactNode;
}

/** A named control with its hint, and with the reason when what was typed does not fit. */
export function Field({
  name,
  fault,
  hint,
  isBeside = false,
  isNameHidden = false,
  className,
  children,
}: FieldProps) {
  const id = useId();
  const about = fault ? `${id}-fault` : hint ? `${id}-hint` : undefined;
  return (
    <div className={cx('flex min-w-0 flex-col gap-0.75', isBeside && BESIDE_LOOK, className)}>
      <label className={isNameHidden ? 'sr-only' : FIELD_NAME_LOOK} htmlFor={id}>
        {name}
      </label>
      {children({
        id,
        ...(fault ? { 'aria-invalid': true as const } : {}),
        ...(about ? { 'aria-describedby': about } : {}),
      })}
      {fault ? (
        <span id={`${id}-fault`} className={cx(FAULT_LOOK, isBeside && 'col-start-2')} role="alert">
          {fault}
        </span>
      ) : hint ? (
        <span id={`${id}-hint`} className="text-soft">
          {hint}
        </span>
      ) : null}
    </div>
  );
}
