import './label.css';
import { type ReactNode, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { Placement } from '#core/page/model.ts';
import { sayFailure } from '../api/client.ts';
import { changePiece } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';

export type LabelRowName = 'title' | 'fit' | 'cut' | 'words' | 'rights' | 'name';

/** The use of a piece that the label stands beside: its placement on a page, and the ways to change it. */
export interface Use {
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
    <section className="label-row" aria-label={name}>
      <h3>{name}</h3>
      <div className="label-row-body">
        {children}
        {way}
      </div>
      {form}
    </section>
  );
}

export function OpenRow({ words, state }: { readonly words: string; readonly state: RowState }) {
  if (!state.isEditable) return null;
  return (
    <Button kind="link" aria-expanded={state.isOpen} onClick={state.onToggle}>
      {state.isOpen ? 'Close' : words}
    </Button>
  );
}

/** Saves a change to the piece and says why when it could not be. */
export function useLabelChange(asset: Asset) {
  const [fault, setFault] = useState<string | null>(null);
  const save = async (change: Parameters<typeof changePiece>[1], name: string): Promise<boolean> => {
    setFault(null);
    try {
      await changePiece(asset.id, change, name);
      return true;
    } catch (error) {
      setFault(sayFailure(error));
      return false;
    }
  };
  return { fault, save };
}
