import { type ReactNode, useId } from 'react';

interface FieldProps {
  readonly name: string;
  readonly fault?: string | null;
  readonly hint?: string;
  /** Draws the control with the id and descriptions it has to carry. */
  readonly children: (control: {
    id: string;
    'aria-invalid'?: true;
    'aria-describedby'?: string;
  }) => ReactNode;
}

/** A named control with its hint, and with the reason when what was typed does not fit. */
export function Field({ name, fault, hint, children }: FieldProps) {
  const id = useId();
  const about = fault ? `${id}-fault` : hint ? `${id}-hint` : undefined;
  return (
    <div className="field">
      <label htmlFor={id}>{name}</label>
      {children({
        id,
        ...(fault ? { 'aria-invalid': true as const } : {}),
        ...(about ? { 'aria-describedby': about } : {}),
      })}
      {fault ? (
        <span id={`${id}-fault`} className="fault" role="alert">
          {fault}
        </span>
      ) : hint ? (
        <span id={`${id}-hint`} className="soft">
          {hint}
        </span>
      ) : null}
    </div>
  );
}
