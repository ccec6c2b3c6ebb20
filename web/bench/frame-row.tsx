import type { CropRect, Ratio } from '#core/media/crop.ts';
import { resizedFrame } from '#core/media/frame.ts';
import { type Cuttable, frameIn, wholeSize } from '#core/media/recipe.ts';
import { LabelRow } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import { sameRatio, withFrame, withoutFrame } from './frames.ts';
import { clamped, NumberOf } from './number-of.tsx';
import type { Keep } from './prep-change.ts';

interface FrameRowProps {
  readonly piece: Cuttable;
  readonly ratio: Ratio;
  readonly onKeep: Keep;
}

/** The part of the piece that is cut to a shape, in px of the piece. */
export function FrameRow({ piece, ratio, onKeep }: FrameRowProps) {
  const whole = wholeSize(piece);
  const crop = frameIn(piece, ratio);
  const isFramed = piece.prep.frames.some((frame) => sameRatio(frame.ratio, ratio));
  const keep = (next: CropRect) => onKeep(withFrame(piece.prep, ratio, next), 'framing it by hand');
  return (
    <LabelRow name="Frame">
      <div className="grid grid-cols-3 gap-2">
        <NumberOf
          name="Left"
          value={Math.round(crop.left * whole.width)}
          onNumber={(px) => keep({ ...crop, left: clamped(px / whole.width, 1 - crop.width) })}
        />
        <NumberOf
          name="Top"
          value={Math.round(crop.top * whole.height)}
          onNumber={(px) => keep({ ...crop, top: clamped(px / whole.height, 1 - crop.height) })}
        />
        <NumberOf
          name="Wide"
          value={Math.round(crop.width * whole.width)}
          onNumber={(px) => keep(resizedFrame(crop, whole, ratio, px / whole.width, { x: 0.5, y: 0.5 }))}
        />
      </div>
      {isFramed ? (
        <Button
          kind="link"
          onClick={() => onKeep(withoutFrame(piece.prep, ratio), 'following the focal point')}
        >
          Follow the focal point again
        </Button>
      ) : (
        <p className="text-soft">It follows the focal point.</p>
      )}
    </LabelRow>
  );
}
