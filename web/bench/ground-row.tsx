import { LabelRow } from '../label/row.tsx';
import type { DraftProps } from './prep-change.ts';

const PAPER = '#ffffff';

/** What stands under the transparent parts of a picture: nothing, or a colour. */
export function GroundRow({ prep, onDraft, change }: DraftProps) {
  return (
    <LabelRow name="Ground">
      <div className="label-actions">
        <label className="check">
          <input
            type="checkbox"
            checked={prep.ground !== null}
            onChange={(event) => change({ ground: event.target.checked ? PAPER : null }, 'its ground')}
          />
          Laid on a colour where it is transparent
        </label>
        {prep.ground ? (
          <label className="check">
            <input
              type="color"
              className="ink"
              value={prep.ground}
              onChange={(event) => onDraft({ ...prep, ground: event.target.value })}
              onBlur={(event) => change({ ground: event.target.value }, 'its ground')}
            />
            Colour
          </label>
        ) : null}
      </div>
    </LabelRow>
  );
}
