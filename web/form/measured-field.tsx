import { type KeyboardEvent, useEffect, useState } from 'react';
import { cx } from '../ui/cx.ts';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';

/** What typed text means, or why it means nothing. */
export type Read<T> = { readonly value: T } | { readonly fault: string };

interface MeasuredFieldProps<T> {
  readonly name: string;
  /** The value as it is said: "480 px", "46%", "16:9", "1:20"; empty for one that is not its own. */
  readonly says: string;
  readonly read: (text: string) => Read<T>;
  /** Told when a value was written that is another than the one that is said. */
  readonly onKeep: (value: T) => void;
  readonly placeholder?: string;
  readonly hint?: string;
  readonly isBeside?: boolean;
  readonly isSmall?: boolean;
  readonly isNameHidden?: boolean;
  readonly autoFocus?: boolean;
  /** Left as it was. */
  readonly onLeave?: () => void;
  /** Told when what is typed can no longer be read, and when it can again or is put back. */
  readonly onFault?: (isFaulty: boolean) => void;
  /** What becomes of text as it is typed. */
  readonly tidy?: (text: string) => string;
  readonly inputMode?: 'numeric' | 'text';
  readonly maxLength?: number;
  readonly className?: string;
}

/**
 * A measure typed as it is said, with its unit. It is kept when it is left or Enter is pressed; what cannot be read
 * stays in the field with its reason, and Escape puts back what was there.
 */
export function MeasuredField<T>({
  name,
  says,
  read,
  onKeep,
  placeholder,
  hint,
  isBeside = false,
  isSmall = false,
  isNameHidden = false,
  autoFocus = false,
  onLeave,
  onFault,
  tidy = (typed) => typed,
  inputMode = 'text',
  maxLength = 60,
  className,
}: MeasuredFieldProps<T>) {
  const [text, setText] = useState(says);
  const [fault, setKnownFault] = useState<string | null>(null);
  const setFault = (next: string | null) => {
    setKnownFault(next);
    if ((next === null) !== (fault === null)) onFault?.(next !== null);
  };
  useEffect(() => {
    setText(says);
    setKnownFault(null);
  }, [says]);
  const keep = () => {
    if (text.trim() === says.trim()) {
      setFault(null);
      onLeave?.();
      return;
    }
    const meant = read(text.trim());
    setFault('fault' in meant ? meant.fault : null);
    if ('value' in meant) onKeep(meant.value);
  };
  const press = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      keep();
    } else if (event.key === 'Escape' && (text !== says || onLeave)) {
      event.stopPropagation();
      setText(says);
      setFault(null);
      onLeave?.();
    }
  };
  return (
    <Field
      name={name}
      fault={fault}
      isBeside={isBeside}
      isNameHidden={isNameHidden}
      {...(hint === undefined ? {} : { hint })}
      {...(className === undefined ? {} : { className })}
    >
      {(control) => (
        <Input
          {...control}
          className={cx('font-mono', isSmall ? 'min-h-6.5 px-1.5 py-0.5 text-sm' : 'text-mono')}
          placeholder={placeholder}
          inputMode={inputMode}
          maxLength={maxLength}
          value={text}
          onChange={(event) => setText(tidy(event.target.value))}
          onBlur={keep}
          onKeyDown={press}
          {...(autoFocus ? { autoFocus, onFocus: (event) => event.target.select() } : {})}
        />
      )}
    </Field>
  );
}
