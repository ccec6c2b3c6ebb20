import { format, parseISO } from 'date-fns';
import { CalendarDays } from 'lucide-react';
import { lazy, type Ref, Suspense, useEffect, useState } from 'react';
import { cx } from './cx.ts';
import { Input } from './input.tsx';
import { Popover, PopoverContent, PopoverTrigger } from './popover.tsx';
import { isDate, readDate } from './read-date.ts';

/** Comes when a calendar is opened for the first time. */
const Calendar = lazy(() => import('./calendar.tsx'));

interface DateInputProps {
  /** YYYY-MM-DD, or what was typed where that is no date; empty for none. */
  readonly value: string;
  readonly onChange: (value: string) => void;
  /** Left for good: Enter, or away from the field. */
  readonly onSettle?: () => void;
  readonly ref?: Ref<HTMLInputElement>;
  readonly disabled?: boolean;
  readonly className?: string;
  readonly id?: string;
  readonly 'aria-label'?: string;
  readonly 'aria-invalid'?: true;
  readonly 'aria-describedby'?: string;
}

const shown = (value: string) => (isDate(value) ? format(parseISO(value), 'd MMMM yyyy') : value);

/** A date, typed as it is said or chosen from a calendar. */
export function DateInput({ value, onChange, onSettle, className, disabled, ...control }: DateInputProps) {
  const [typed, setTyped] = useState(shown(value));
  const [isTyping, setTyping] = useState(false);
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    if (!isTyping) setTyped(shown(value));
  }, [value, isTyping]);
  const type = (text: string) => {
    setTyped(text);
    onChange(readDate(text, new Date()) ?? text.trim());
  };
  const name = control['aria-label'];
  return (
    <span className={cx('flex gap-1', className)}>
      <Input
        {...control}
        {...(value !== '' && !isDate(value) && !isTyping ? { 'aria-invalid': true as const } : {})}
        className="min-w-0"
        placeholder="12 March 2026"
        maxLength={40}
        disabled={disabled}
        value={typed}
        onFocus={() => setTyping(true)}
        onChange={(event) => type(event.target.value)}
        onBlur={() => {
          setTyping(false);
          onSettle?.();
        }}
      />
      <Popover open={isOpen} onOpenChange={setOpen}>
        <PopoverTrigger asChild>
          <button
            type="button"
            className="grid w-7.5 flex-none place-items-center rounded-sm border border-control bg-panel hover:bg-action-soft disabled:opacity-55"
            disabled={disabled}
            aria-label={name ? `${name}: choose from a calendar` : 'Choose from a calendar'}
          >
            <CalendarDays size={15} aria-hidden />
          </button>
        </PopoverTrigger>
        <PopoverContent align="end" aria-label="Calendar">
          <Suspense>
            <Calendar
              chosen={isDate(value) ? parseISO(value) : null}
              onChoose={(date) => {
                setOpen(false);
                onChange(format(date, 'yyyy-MM-dd'));
                onSettle?.();
              }}
            />
          </Suspense>
        </PopoverContent>
      </Popover>
    </span>
  );
}
