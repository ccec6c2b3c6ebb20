import { queryOptions } from '@tanstack/react-query';
import { PageSchema, SavedPageSchema } from '#api/pages.ts';
import type { Prep } from '#core/media/recipe.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { placementsOf, withPlacement } from '#core/page/walk.ts';
import { requestJson } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { ledger } from '../undo/ledger.ts';

/** One use of a piece, which is prepared by itself. */
export interface Here {
  readonly pageId: string;
  readonly pageTitle: string;
  readonly placement: Placement;
}

export const herePageQuery = (pageId: string) =>
  queryOptions({
    queryKey: ['bench-page', pageId],
    queryFn: () => requestJson('get /pages/{id}', PageSchema, { path: { id: pageId } }),
  });

/** Keeps a recipe for one use alone; null prepares it as everywhere else. */
export function prepareHere({ pageId, placement }: Here, prep: Prep | null, name: string): Promise<void> {
  return ledger.during(async () => {
    const before = await putHere(pageId, placement.id, prep);
    ledger.add({
      name,
      scope: `use ${placement.id}`,
      undo: async () => void (await putHere(pageId, placement.id, before)),
      redo: async () => void (await putHere(pageId, placement.id, prep)),
    });
  });
}

/** Writes it on the page as it stands on the server now; answers what was there before. */
async function putHere(pageId: string, placementId: string, prep: Prep | null): Promise<Prep | null> {
  const page = await requestJson('get /pages/{id}', PageSchema, { path: { id: pageId } });
  const before = placementsOf(page.doc).find(({ id }) => id === placementId)?.prep ?? null;
  const doc = withPlacement(page.doc, placementId, { prep });
  await requestJson('put /pages/{id}', SavedPageSchema, {
    path: { id: pageId },
    body: { doc },
    version: page.version,
  });
  for (const key of ['bench-page', 'pages', 'desk', 'preview', 'made-cuts'])
    await queryClient.invalidateQueries({ queryKey: [key] });
  return before;
}
