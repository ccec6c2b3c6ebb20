import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { sayFailure } from '../api/client.ts';
import { changePiece } from '../pieces/pieces.ts';

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
