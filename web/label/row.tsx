import { type ReactNode, type RefObject, useEffect, useRef } from 'react';
import type { FieldValues } from 'react-hook-form';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import type { Standing } from '#core/page/standing.ts';
import { Form } from '../form/form.tsx';
import type { SaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';

const ROWS = [
  'title',
  'fit',
  'cut',
  'words',
  'rights',
  'terms',
  'access',
  'decision',
  'credit',
  'name',
] as const;
/** A row of a label that is open; of its words, also those in another language (empty: one that is still chosen). */
export type LabelRowName = (typeof ROWS)[number] | `words in ${string}`;

export const isLabelRowName = (name: unknown): name is LabelRowName =>
  typeof name === 'string' && (ROWS.some((row) => row === name) || name.startsWith(WORDS_IN));

export const WORDS_IN = 'words in ';

/** The use of a piece that the label stands beside: its placement on a page, and the ways to change it. */
export interface Use extends Standing {
  readonly pageId: string;
  readonly change: (change: Partial<Placement>, name: string) => void;
  readonly paragraphs: number;
  readonly paragraph: number;
  readonly move: (move: 'up' | 'down' | 'top' | 'bottom' | { besideParagraph: number }) => void;
  readonly remove: () => void;
}

export interface RowState {
  readonly isOpen: boolean;
  readonly isEditable: boolean;
  readonly onToggle: () => void;
}

interface LabelRowProps {
  readonly name: string;
  readonly children: ReactNode;
  readonly form?: ReactNode;
  readonly way?: ReactNode;
  /** The way to what is not said yet stands where it would be said. */
  readonly isUnsaid?: boolean;
}

/** A row: its name, what is so in sentences, the way to change it, and the form when it is open. */
export function LabelRow({ name, children, form, way, isUnsaid = false }: LabelRowProps) {
  const row = useRef<HTMLElement>(null);
  useFocusBack(row, Boolean(form));
  useFocusKept(row);
  return (
    <section
      ref={row}
      data-label-row
      className="grid grid-cols-[60px_minmax(0,1fr)] gap-x-3 gap-y-1 border-t border-hairline py-2.5"
      aria-label={name}
    >
      <div>
        <h3 className="text-2xs leading-4.75 font-semibold text-balance text-soft">{name}</h3>
        {isUnsaid ? null : way}
      </div>
      <div className="grid min-w-0 content-start gap-1">
        {children}
        {isUnsaid ? <div>{way}</div> : null}
      </div>
      {form}
    </section>
  );
}

/**
 * What had the focus in a row may go with what it did, as a button that keeps a licence does. The row's own way has it then: left
 * nowhere, the next Tab would begin at the top of the screen.
 */
function useFocusKept(row: RefObject<HTMLElement | null>): void {
  const last = useRef<Element | null>(null);
  useEffect(() => {
    const see = ({ target }: FocusEvent) => {
      last.current = target instanceof Element && row.current?.contains(target) ? target : null;
    };
    document.addEventListener('focusin', see);
    return () => document.removeEventListener('focusin', see);
  }, [row]);
  useEffect(() => {
    if (last.current === null || last.current.isConnected || document.activeElement !== document.body) return;
    last.current = null;
    const to = row.current?.querySelector(`${OPENER}, button, a[href]`);
    if (to instanceof HTMLElement) to.focus();
  });
}

// A list that opens has a role of its own.
const OPENER = 'button[aria-expanded]:not([role])';

/** When the form in a part of the label closes, and what had the focus went with it, what opened it has it again. */
export function useFocusBack(part: RefObject<HTMLElement | null>, isOpen: boolean): void {
  const wasOpen = useRef(isOpen);
  const opener = useRef<Element | null>(null);
  useEffect(() => {
    const whole = part.current;
    const see = ({ target }: FocusEvent) => {
      if (target instanceof Element && target.matches(OPENER)) opener.current = target;
    };
    whole?.addEventListener('focusin', see);
    return () => whole?.removeEventListener('focusin', see);
  }, [part]);
  useEffect(() => {
    const isClosed = wasOpen.current && !isOpen;
    wasOpen.current = isOpen;
    if (!isClosed || (document.activeElement !== null && document.activeElement !== document.body)) return;
    const { current } = opener;
    const to = current?.isConnected ? current : part.current?.querySelector(OPENER);
    if (to instanceof HTMLElement) to.focus();
  }, [part, isOpen]);
}

interface OpenRowProps {
  /** What opens, as those hear it who cannot see the row; its first word is shown. */
  readonly words: string;
  /** Whether all of the words are shown, where nothing beside it says what is meant. */
  readonly isWhole?: boolean;
  readonly state: RowState;
}

/** Opens a row for editing, and closes it again. */
export function OpenRow({ words, isWhole = false, state }: OpenRowProps) {
  if (!state.isEditable) return null;
  return (
    <Button
      kind="link"
      className="min-h-6 text-sm"
      aria-expanded={state.isOpen}
      aria-label={state.isOpen ? `Close: ${words.charAt(0).toLowerCase()}${words.slice(1)}` : words}
      onClick={state.onToggle}
    >
      {state.isOpen ? 'Close' : isWhole ? words : words.split(/[ ,]/)[0]}
    </Button>
  );
}

interface LabelFormProps<In extends FieldValues> {
  readonly of: SaveForm<In>;
  /** What the button says it does. */
  readonly deed: string;
  readonly children: ReactNode;
}

/** The form of a row, across the whole width of the label. */
export function LabelForm<In extends FieldValues>({ of, deed, children }: LabelFormProps<In>) {
  const fields = useRef<HTMLDivElement>(null);
  // Whoever opens it writes on at once.
  useEffect(
    () => fields.current?.querySelector<HTMLElement>('input, textarea, [role="combobox"]')?.focus(),
    [],
  );
  return (
    <Form of={of} className="col-span-full pt-1.5">
      <div className="contents" ref={fields}>
        {children}
      </div>
      <div className="flex flex-wrap gap-2">
        <Button kind="action" type="submit" disabled={of.isBusy}>
          {deed}
        </Button>
      </div>
    </Form>
  );
}
