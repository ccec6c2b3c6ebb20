import type { Asset } from '#api/assets.ts';
import type { HouseRules } from '#core/page/target.ts';
import { Label } from '../label/label.tsx';
import { usePiece } from '../pieces/pieces.ts';
import { Button, LinkButton } from '../ui/button.tsx';

interface HeldLabelProps {
  readonly asset: Asset;
  readonly rules: HouseRules;
  /** Puts it on the tray; null where nothing is gathered for a page. */
  readonly onTake: (() => void) | null;
}

/** The label of a piece that is held already, with the way to use it. */
export function HeldLabel({ asset, rules, onTake }: HeldLabelProps) {
  const piece = usePiece(asset.id) ?? asset;
  return (
    <>
      <Label asset={piece} rules={rules} use={null} isEditable={false} openRow={null} onOpenRow={() => {}} />
      <div className="sticky -bottom-3.5 -mx-3.5 mt-auto -mb-3.5 flex flex-wrap gap-2 border-t border-line bg-ground px-3.5 py-3">
        {onTake ? (
          <Button kind="action" onClick={onTake}>
            To the tray
          </Button>
        ) : null}
        <LinkButton to={`/shelf?piece=${asset.id}`}>See it on the shelf</LinkButton>
      </div>
    </>
  );
}
