import { useState } from 'react';
import type { AssetChange } from '#api/assets.ts';
import { sayFailure } from '../api/client.ts';
import { toast } from '../ui/toast.ts';
import { Keeper } from './keeper.ts';

/** Keeps changes, and tells what was kept last, or null where it could not be kept. */
export function useKeeper(
  write: (change: AssetChange, name: string) => Promise<void>,
  onKept: (kept: AssetChange | null) => void,
): (change: AssetChange, name: string) => Promise<void> {
  const [keeper] = useState(() => new Keeper());
  return async (change, name) => {
    try {
      const kept = await keeper.keep(change, name, write);
      if (kept) onKept(kept);
    } catch (error) {
      toast.error(sayFailure(error));
      onKept(null);
    }
  };
}
