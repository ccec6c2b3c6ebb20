import { enGB } from 'date-fns/locale/en-GB';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { DayPicker } from 'react-day-picker';
import { firstDayOfWeek } from './week.ts';

interface CalendarProps {
  readonly chosen: Date | null;
  readonly onChoose: (date: Date) => void;
}

function Chevron({ orientation }: { readonly orientation?: 'up' | 'down' | 'left' | 'right' }) {
  return orientation === 'left' ? (
    <ChevronLeft size={16} aria-hidden />
  ) : (
    <ChevronRight size={16} aria-hidden />
  );
}

const ARROW = 'grid size-7 place-items-center rounded-sm hover:bg-action-soft';

/** A month of days. Weeks begin as they do where the browser's language is spoken; arrows go by day, page keys by month. */
export default function Calendar({ chosen, onChoose }: CalendarProps) {
  return (
    <DayPicker
      mode="single"
      required
      autoFocus
      locale={enGB}
      weekStartsOn={firstDayOfWeek(navigator.language)}
      {...(chosen ? { selected: chosen, defaultMonth: chosen } : { selected: undefined })}
      onSelect={onChoose}
      components={{ Chevron }}
      classNames={{
        root: 'p-1.5',
        months: 'relative',
        month_caption: 'flex h-7 items-center px-1 font-strong text-md',
        nav: 'absolute top-0 right-0 flex',
        button_previous: ARROW,
        button_next: ARROW,
        month_grid: 'mt-1.5 border-collapse',
        weekday: 'size-8 font-normal text-2xs text-soft',
        day: 'p-0 text-center',
        day_button: 'size-8 rounded-sm font-mono text-sm hover:bg-action-soft',
        today: 'font-strong [&>button]:border [&>button]:border-control',
        selected: '[&>button]:bg-ink [&>button]:text-panel [&>button]:hover:bg-ink',
        outside: 'text-soft',
      }}
    />
  );
}
