import type { Asset } from '#api/assets.ts';
import { Store } from '../ui/store.ts';
import { toast } from '../ui/toast.ts';

/** A comp and the original that somebody is about to put in its place; null most of the time. */
export const offeredOriginal = new Store<{ readonly comp: Asset; readonly original: Asset } | null>(null);

const OFFER_MILLIS = 20_000;

/** Says that what came in is the original of a comp, and offers to put it in its place. */
export function offerOriginal(comp: Asset, original: Asset): void {
  const title = comp.label.title || comp.stem;
  toast(`${original.stem}.${original.extension} is the original of ${title}, by its looks.`, {
    duration: OFFER_MILLIS,
    action: {
      label: 'Put it in place...',
      onClick: () => offeredOriginal.set({ comp, original }),
    },
  });
}
