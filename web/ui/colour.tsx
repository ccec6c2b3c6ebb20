import { useId } from 'react';

interface ColourProps {
  readonly name: string;
  /** Whether its name is told by what stands round it. */
  readonly isNameHidden?: boolean;
  /** As #rrggbb. */
  readonly value: string;
  /** While it is being chosen. */
  readonly onMove: (colour: string) => void;
  /** When the choice is left. */
  readonly onLet?: (colour: string) => void;
}

/** A colour with its name; the system's own chooser opens from it. */
export function ColourField({ name, isNameHidden = false, value, onMove, onLet }: ColourProps) {
  const id = useId();
  return (
    <label htmlFor={id} className="flex min-h-7 items-center gap-1.75">
      <input
        id={id}
        type="color"
        className="mx-0.75 h-6 w-8 flex-none border border-control"
        value={value}
        onChange={(event) => onMove(event.target.value)}
        onBlur={(event) => onLet?.(event.target.value)}
      />
      <span className={isNameHidden ? 'sr-only' : ''}>{name}</span>
    </label>
  );
}
