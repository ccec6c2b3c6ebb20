import { usesOf } from '#core/page/linked.ts';
import type { WholePage } from '../pages/store.ts';

/** The pieces whose files go out with a page: those that stand on it, and not what only lies on its tray. */
export function placedAssets({ doc, assets }: WholePage): WholePage['assets'] {
  const placed = new Set(usesOf(doc).map(({ asset }) => asset));
  return assets.filter(({ id }) => placed.has(id));
}
