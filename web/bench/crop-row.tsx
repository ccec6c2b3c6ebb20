import { type CropRect, cropToRatio, type Ratio } from '#core/media/crop.ts';
import type { Size } from '#core/media/dimensions.ts';
import { type Cuttable, focalIn, wholeSize } from '#core/media/recipe.ts';
import type { HouseRules } from '#core/page/target.ts';
import { LabelRow } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import { Chips } from '../ui/chips.tsx';
import { withCrop } from './frames.ts';
import { clamped, NumberOf } from './number-of.tsx';
import type { Keep } from './prep-change.ts';

interface CropRowProps {
  readonly piece: Cuttable;
  readonly rules: HouseRules;
  readonly onKeep: Keep;
}

/** The part that is left of the picture for every use: any shape by hand, or one of the target's, in px of the original. */
export function CropRow({ piece, rules, onKeep }: CropRowProps) {
  const uncropped = { ...piece, prep: { ...piece.prep, crop: null } };
  const whole = wholeSize(uncropped);
  const crop = piece.prep.crop ?? { left: 0, top: 0, width: 1, height: 1 };
  const keep = (next: CropRect | null) =>
    onKeep(withCrop(piece.prep, next), next ? 'cropping it' : 'its own shape');
  const shapes = new Map<string, Ratio>(
    rules.cutPresets.flatMap(({ ratio }) =>
      ratio ? [[`${ratio.across}:${ratio.down}`, ratio] as const] : [],
    ),
  );
  const number = (name: string, share: number, px: number, put: (share: number) => CropRect) => (
    <NumberOf name={name} value={Math.round(share * px)} onNumber={(value) => keep(put(value / px))} />
  );
  return (
    <LabelRow name="Crop">
      <Chips
        about="Shape of the crop"
        pressed={
          piece.prep.crop === null
            ? [WHOLE]
            : [...shapes].flatMap(([words, ratio]) => (hasShape(crop, whole, ratio) ? [words] : []))
        }
        choices={[WHOLE, ...shapes.keys()].map((words) => [words, words] as const)}
        onPress={(words) => {
          const ratio = shapes.get(words);
          keep(ratio ? cropToRatio(whole, ratio, focalIn(uncropped)) : null);
        }}
      />
      <div className="grid grid-cols-4 gap-1.25">
        {number('Left', crop.left, whole.width, (left) => ({ ...crop, left: clamped(left, 1 - crop.width) }))}
        {number('Top', crop.top, whole.height, (top) => ({ ...crop, top: clamped(top, 1 - crop.height) }))}
        {number('Wide', crop.width, whole.width, (width) => ({
          ...crop,
          width: Math.max(LEAST_SHARE, clamped(width, 1 - crop.left)),
        }))}
        {number('High', crop.height, whole.height, (height) => ({
          ...crop,
          height: Math.max(LEAST_SHARE, clamped(height, 1 - crop.top)),
        }))}
      </div>
      {piece.prep.crop ? (
        <Button kind="link" onClick={() => keep(null)}>
          Undo crop
        </Button>
      ) : (
        <p className="text-soft">It is in its own shape. Draw its corners in to crop it for every use.</p>
      )}
    </LabelRow>
  );
}

function hasShape(crop: CropRect, whole: Size, ratio: Ratio): boolean {
  const wide = crop.width * whole.width;
  const high = crop.height * whole.height;
  return Math.abs(wide - (high * ratio.across) / ratio.down) <= 1;
}

/** What a crop in the picture's own shape is called. */
const WHOLE = 'whole';

/** A crop is never thinner than this share of the picture. */
const LEAST_SHARE = 0.02;
