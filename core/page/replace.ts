import { usesOf } from './linked.ts';
import type { PageDoc } from './model.ts';
import { fileHref } from './page-address.ts';
import { placementsOf, withBlocks } from './walk.ts';

/**
 * The page with one piece in the place of another: on the sheet, on the tray and in the wants. Placements keep all
 * that they say, but for the settings of an embed: the start of one film is not that of another. The very same page
 * when the old piece is not on it.
 */
export function withReplaced(page: PageDoc, oldId: string, newId: string): PageDoc {
  const swap = (id: string) => (id === oldId ? newId : id);
  const names =
    page.tray.includes(oldId) ||
    page.wants.some((want) => want.filledBy === oldId) ||
    usesOf(page).some(({ asset }) => asset === oldId);
  if (!names) return page;
  const swapped = withBlocks(page, (block) =>
    block.type === 'placement' && block.attrs.asset === oldId
      ? { ...block, attrs: { ...block.attrs, asset: newId, settings: null } }
      : block,
  );
  return {
    ...swapped,
    blocks: withLinksTo(swapped.blocks, oldId, newId),
    tray: [...new Set(page.tray.map(swap))],
    wants: page.wants.map((want) => (want.filledBy === oldId ? { ...want, filledBy: newId } : want)),
  };
}

/** Links to the file of one piece, led to that of another, wherever they stand: in the words of a block or as its own. */
function withLinksTo(blocks: PageDoc['blocks'], oldId: string, newId: string): PageDoc['blocks'] {
  const [from, to] = [JSON.stringify(fileHref(oldId)), JSON.stringify(fileHref(newId))];
  const text = JSON.stringify(blocks);
  return text.includes(from) ? JSON.parse(text.replaceAll(from, to)) : blocks;
}

/** The page without pieces on its tray, as far as they do not stand on the sheet; wants that they filled are open again. */
export function withoutGathered(page: PageDoc, assetIds: readonly string[]): PageDoc {
  const placed = new Set(placementsOf(page).map((placement) => placement.asset));
  const off = new Set(assetIds.filter((id) => page.tray.includes(id) && !placed.has(id)));
  if (off.size === 0) return page;
  return {
    ...page,
    tray: page.tray.filter((id) => !off.has(id)),
    wants: page.wants.map((want) =>
      want.filledBy !== null && off.has(want.filledBy) ? { ...want, filledBy: null } : want,
    ),
  };
}

/** The page with pieces on its tray, the first of them filling a want where one is named. */
export function withGathered(page: PageDoc, assetIds: readonly string[], wantId: string | null): PageDoc {
  const fresh = assetIds.filter((id) => !page.tray.includes(id));
  const [first] = assetIds;
  const fills = wantId !== null && first !== undefined && page.wants.some((want) => want.id === wantId);
  if (fresh.length === 0 && !fills) return page;
  return {
    ...page,
    tray: [...page.tray, ...fresh],
    wants: fills
      ? page.wants.map((want) => (want.id === wantId ? { ...want, filledBy: first ?? null } : want))
      : page.wants,
  };
}
