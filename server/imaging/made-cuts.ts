import { and, eq } from 'drizzle-orm';
import type { MadeCuts } from '#api/assets.ts';
import { may, type Person } from '#api/people.ts';
import { sizeAfter, WHOLE, wholeRecipe } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { cutsOfPage } from '#core/page/write.ts';
import type { Context } from '../context.ts';
import { cuts, runSteps } from '../db/schema.ts';
import { THUMB_PX, VIEW_PX } from '../media/screen-px.ts';
import { readPagesWith } from '../pages/store.ts';
import { type AssetRow, pieceOf } from '../shelf/present.ts';
import { cutKey } from '../storage/storage.ts';
import { SCREEN_QUALITY } from './first-look.ts';

type CutRow = typeof cuts.$inferSelect;

interface Sorted {
  readonly onPages: readonly { readonly cut: CutRow; readonly pages: readonly string[] }[];
  /** Those that Placard's own screens show. */
  readonly onScreens: readonly CutRow[];
  /** Those that a run made and nobody took back. */
  readonly byRuns: readonly CutRow[];
  readonly unused: readonly CutRow[];
}

/** The cuts that were made of a piece, and which of them its pages and Placard's own screens need as they are now. */
async function sorted(context: Context, row: AssetRow): Promise<Sorted> {
  const [made, needed, ofRuns] = await Promise.all([
    context.db.select().from(cuts).where(eq(cuts.assetId, row.id)),
    neededOnPages(context, row),
    madeByRuns(context, row),
  ]);
  const screens = neededOnScreens(row);
  const pagesOf = (cut: CutRow) => needed.get(keyOf(row, cut)) ?? [];
  const standingOf = (cut: CutRow) => {
    if (pagesOf(cut).length > 0) return 'on-pages';
    if (screens.has(keyOf(row, cut))) return 'on-screens';
    return ofRuns.has(keyOf(row, cut)) ? 'by-runs' : 'unused';
  };
  const those = (standing: ReturnType<typeof standingOf>) =>
    made.filter((cut) => standingOf(cut) === standing);
  return {
    onPages: those('on-pages').map((cut) => ({ cut, pages: pagesOf(cut) })),
    onScreens: those('on-screens'),
    byRuns: those('by-runs'),
    unused: those('unused'),
  };
}

/** The storage keys of what runs made of a piece for the shelf. */
async function madeByRuns(context: Context, { id, sha256 }: AssetRow): Promise<ReadonlySet<string>> {
  const steps = await context.db
    .select({ row: runSteps.row })
    .from(runSteps)
    .where(and(eq(runSteps.assetId, id), eq(runSteps.state, 'done')));
  return new Set(
    steps.flatMap(({ row }) =>
      row.files.map(({ recipe, width, format, quality }) => cutKey(sha256, recipe, width, format, quality)),
    ),
  );
}

const keyOf = (
  { sha256 }: AssetRow,
  { recipe, widthPx, format, quality }: Omit<CutRow, 'bytes' | 'seconds'>,
) => cutKey(sha256, recipe, widthPx, format, quality);

/** The storage keys of the small pictures that Placard shows of a piece, as it came and as it is prepared. */
function neededOnScreens(row: AssetRow): ReadonlySet<string> {
  const piece = pieceOf(row);
  const keys = [WHOLE, wholeRecipe(piece)].flatMap((recipe) =>
    [THUMB_PX, VIEW_PX].map((wish) => {
      const width = Math.min(wish, sizeAfter(piece.size, recipe).width);
      return cutKey(row.sha256, recipeKey(recipe), width, 'webp', SCREEN_QUALITY);
    }),
  );
  return new Set(keys);
}

/** The storage key of every cut that pages need of a piece, with the titles of those pages. */
async function neededOnPages(
  context: Context,
  row: AssetRow,
): Promise<ReadonlyMap<string, readonly string[]>> {
  const needed = new Map<string, readonly string[]>();
  const { wholes } = await readPagesWith(context, row.id);
  for (const page of wholes) {
    for (const { assetId, recipe, format, size, quality } of cutsOfPage(page.doc, page)) {
      if (assetId !== row.id) continue;
      const key = cutKey(row.sha256, recipeKey(recipe), size.width, format, quality);
      needed.set(key, [...(needed.get(key) ?? []), page.row.title]);
    }
  }
  return needed;
}

const weigh = (rows: readonly CutRow[]) => ({
  count: rows.length,
  bytes: rows.reduce((sum, { bytes }) => sum + bytes, 0),
});

export async function madeCuts(
  context: Context,
  row: AssetRow,
  reader: Pick<Person, 'role'>,
): Promise<MadeCuts> {
  const readsPages = may(reader.role, 'edit-pages');
  const { onPages, onScreens, byRuns, unused } = await sorted(context, row);
  return {
    onPages: onPages.map(({ cut: { widthPx, format, bytes, recipe }, pages }) => ({
      width: widthPx,
      format,
      bytes,
      recipe,
      pages: readsPages ? [...pages] : [],
    })),
    onScreens: weigh(onScreens),
    byRuns: weigh(byRuns),
    unused: weigh(unused),
  };
}

/** Throws away those of the cuts that nothing needs. One that is needed again is made again from the original. */
export async function throwCuts(
  context: Context,
  row: AssetRow,
  isMeant: (cut: CutRow) => boolean,
): Promise<void> {
  const { unused } = await sorted(context, row);
  for (const cut of unused.filter(isMeant)) {
    // The row first: a cut without its row is made anew, a row without its cut would be asked for again and again.
    await context.db
      .delete(cuts)
      .where(
        and(
          eq(cuts.assetId, cut.assetId),
          eq(cuts.recipe, cut.recipe),
          eq(cuts.widthPx, cut.widthPx),
          eq(cuts.format, cut.format),
          eq(cuts.quality, cut.quality),
        ),
      );
    await context.storage.remove(keyOf(row, cut));
  }
}
