import type { ReactNode } from 'react';
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
}

/** A row: its name, what is so in sentences, the way to change it, and the form when it is open. */
export function LabelRow({ name, children, form, way }: LabelRowProps) {
  return (
    <section
      data-label-row
      className="grid grid-cols-[60px_minmax(0,1fr)] gap-x-3 gap-y-1 border-t border-hairline py-2.5"
      aria-label={name}
    >
      <div>
        <h3 className="text-2xs leading-4.75 font-semibold text-balance text-soft">{name}</h3>
        {way}
      </div>
      <div className="grid min-w-0 content-start gap-1">{children}</div>
      {form}
    </section>
  );
}

interface OpenRowProps {
  /** What opens, as those hear it who cannot see the row; its first word is shown. */
  readonly words: string;
  readonly state: RowState;
}

/** Opens a row for editing, and closes it again. */
export function OpenRow({ words, state }: OpenRowProps) {
  if (!state.isEditable) return null;
  return (
    <Button
      kind="link"
      className="min-h-6 text-sm"
      aria-expanded={state.isOpen}
      aria-label={state.isOpen ? `Close: ${words.charAt(0).toLowerCase()}${words.slice(1)}` : words}
      onClick={state.onToggle}
    >
      {state.isOpen ? 'Close' : words.split(/[ ,]/)[0]}
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
  return (
    <Form of={of} className="col-span-full pt-1.5">
      {children}
      <div className="flex flex-wrap gap-2">
        <Button kind="action" type="submit" disabled={of.isBusy}>
          {deed}
        </Button>
      </div>
    </Form>
  );
}
