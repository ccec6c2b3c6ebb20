import { type ReactNode, type RefObject, useEffect, useRef } from 'react';
import type { FieldValues } from 'react-hook-form';
import type { Placement } from '#core/page/model.ts';
import { Form } from '../form/form.tsx';
import type { SaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';

export type LabelRowName = 'title' | 'fit' | 'cut' | 'words' | 'rights' | 'name';

/** The use of a piece that the label stands beside: its placement on a page, and the ways to change it. */
export interface Use {
  readonly pageId: string;
  readonly placement: Placement;
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

/** When the form in a part of the label closes, and what had the focus went with it, what opened it has it again. */
export function useFocusBack(part: RefObject<HTMLElement | null>, isOpen: boolean): void {
  const wasOpen = useRef(isOpen);
  useEffect(() => {
    const isClosed = wasOpen.current && !isOpen;
    wasOpen.current = isOpen;
    if (isClosed && (document.activeElement === null || document.activeElement === document.body))
      part.current?.querySelector<HTMLElement>('[aria-expanded]')?.focus();
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
