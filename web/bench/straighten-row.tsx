import { STRAIGHTEN_LIMIT } from '#core/media/recipe.ts';
import { LabelRow } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import type { DraftProps } from './prep-change.ts';
import { Slide, signed } from './slide.tsx';

export interface LevelProps {
  /** Whether a line is being drawn along what should be level. */
  readonly isLevelling: boolean;
  readonly onLevelling: (isLevelling: boolean) => void;
}

/** Straightening by tenths of a degree, by a slider or by a line. */
export function StraightenRow({ prep, onDraft, change, isLevelling, onLevelling }: DraftProps & LevelProps) {
  return (
    <LabelRow name="Straight">
      <Slide
        name="Horizon"
        value={prep.straighten}
        least={-STRAIGHTEN_LIMIT}
        most={STRAIGHTEN_LIMIT}
        says={`${signed(prep.straighten / 10, 1)}°`}
        onMove={(straighten) => onDraft({ ...prep, straighten })}
        onLet={(straighten) => change({ straighten }, 'straightening it')}
      />
      <Button kind="link" aria-pressed={isLevelling} onClick={() => onLevelling(!isLevelling)}>
        {isLevelling ? 'Leave it as it is' : 'Draw a line that should be level'}
      </Button>
    </LabelRow>
  );
}
