import type { PageDoc } from './model.ts';
import { placementsOf, withBlocks } from './walk.ts';

/**
 * The page without a piece: where it stood there is nothing, and what stood beside it stays. It leaves the tray, and wants that it
 * filled are open again. Links to its file stay, and are found as leading nowhere. The very same page when it is not on it.
 */
export function withoutPiece(page: PageDoc, assetId: string): PageDoc {
  const isThere =
    page.tray.includes(assetId) ||
    page.wants.some(({ filledBy }) => filledBy === assetId) ||
    placementsOf(page).some(({ asset }) => asset === assetId);
  if (!isThere) return page;
  const taken = withBlocks(page, (block) =>
    block.type === 'placement' && block.attrs.asset === assetId ? null : block,
  );
  return {
    ...taken,
    tray: page.tray.filter((id) => id !== assetId),
    wants: page.wants.map((want) => (want.filledBy === assetId ? { ...want, filledBy: null } : want)),
  };
}
