import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { sayFailure } from '../api/client.ts';
import { foldPiece, keepBoth, replacePiece } from '../pieces/put-away.ts';
import { Button } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';

interface AlikeDeedsProps {
  readonly asset: Asset;
  readonly other: Asset;
  readonly onDone: () => void;
}

/** What is done with two that show the same: kept both, one folded under the other, or put in its place everywhere. */
export function AlikeDeeds({ asset, other, onDone }: AlikeDeedsProps) {
  const [fault, setFault] = useState<string | null>(null);
  const act = (work: () => Promise<void>) => async () => {
    setFault(null);
    try {
      await work();
      onDone();
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  const pages = other.usedOn.length;
  const where = pages === 0 ? '' : pages === 1 ? ' on 1 page' : ` on ${pages} pages`;
  return (
    <>
      <Button kind="action" onClick={() => void act(() => keepBoth(asset.id, other.id))()}>
        Keep both
      </Button>
      <Button onClick={() => void act(() => foldPiece(other.id, asset.id))()}>
        Fold {other.stem} under this one
      </Button>
      <Button onClick={() => void act(() => replacePiece(other, asset))()}>
        Put this one in its place{where}
      </Button>
      <Fault says={fault} />
    </>
  );
}
