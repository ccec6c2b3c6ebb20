import { FlipHorizontal2, RotateCcw, RotateCw } from 'lucide-react';
import { mirroredPrep, type Prep, turnedPrep } from '#core/media/recipe.ts';
import { LabelRow } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import type { Keep } from './prep-change.ts';

/** Turning by quarters, and mirroring. */
export function TurnRow({ prep, onKeep }: { readonly prep: Prep; readonly onKeep: Keep }) {
  return (
    <LabelRow name="Turn">
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => onKeep(turnedPrep(prep, 'left'), 'turning it left')}>
          <RotateCcw size={15} aria-hidden="true" /> Left
        </Button>
        <Button onClick={() => onKeep(turnedPrep(prep, 'right'), 'turning it right')}>
          <RotateCw size={15} aria-hidden="true" /> Right
        </Button>
        <Button aria-pressed={prep.mirror} onClick={() => onKeep(mirroredPrep(prep), 'mirroring it')}>
          <FlipHorizontal2 size={15} aria-hidden="true" /> Mirror
        </Button>
      </div>
    </LabelRow>
  );
}
