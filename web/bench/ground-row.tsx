import { LabelRow } from '../label/row.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { ColourField } from '../ui/colour.tsx';
import type { DraftProps } from './prep-change.ts';

const PAPER = '#ffffff';

/** What stands under the transparent parts of a picture: nothing, or a colour. */
export function GroundRow({ prep, onDraft, change }: DraftProps) {
  return (
    <LabelRow name="Ground">
      <div className="flex flex-wrap gap-2">
        <Checkbox
          checked={prep.backgroundColour !== null}
          onChange={(isOn) => change({ backgroundColour: isOn ? PAPER : null }, 'its ground')}
        >
          Laid on a colour where it is transparent
        </Checkbox>
        {prep.backgroundColour ? (
          <ColourField
            name="Colour"
            value={prep.backgroundColour}
            onMove={(ground) => onDraft({ ...prep, backgroundColour: ground })}
            onLet={(ground) => change({ backgroundColour: ground }, 'its ground')}
          />
        ) : null}
      </div>
    </LabelRow>
  );
}
