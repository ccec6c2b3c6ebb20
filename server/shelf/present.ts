import { eq, inArray } from 'drizzle-orm';
import type { Asset } from '#api/assets.ts';
import type { Piece } from '#core/page/picture.ts';
import type { Context } from '../context.ts';
import type { assets } from '../db/schema.ts';
import { pages, people, placements } from '../db/schema.ts';
import { signedAddress, THUMB_PX, thumbPath, VIEW_PX } from '../media/addresses.ts';

export type AssetRow = typeof assets.$inferSelect;

/** Pieces as the web knows them, with where they are used and who brought them, in two queries for all. */
export async function presentAssets(context: Context, rows: readonly AssetRow[]): Promise<Asset[]> {
  if (rows.length === 0) return [];
  const [uses, names] = await Promise.all([
    usesOf(
      context,
      rows.map((row) => row.id),
    ),
    namesOf(
      context,
      rows.map((row) => row.createdBy),
    ),
  ]);
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    stem: row.stem,
    extension: row.extension,
    folder: row.folder,
    width: row.widthPx,
    height: row.heightPx,
    bytes: row.bytes,
    format: row.format,
    alpha: row.alpha,
    animated: row.animated,
    label: row.label,
    drafted: row.drafted,
    notes: row.notes,
    originalName: row.originalName,
    thumb: address(context, row, THUMB_PX),
    view: address(context, row, VIEW_PX),
    createdAt: row.createdAt.toISOString(),
    createdBy: names.get(row.createdBy) ?? 'Somebody',
    usedOn: uses.get(row.id) ?? [],
  }));
}

export function thumbAddress(context: Context, row: Pick<AssetRow, 'id' | 'widthPx'>): string {
  return address(context, row, THUMB_PX);
}

function address(context: Context, row: Pick<AssetRow, 'id' | 'widthPx'>, wish: number): string {
  return signedAddress(context, thumbPath(row.id, Math.min(wish, row.widthPx)));
}

async function usesOf(context: Context, assetIds: readonly string[]) {
  const rows = await context.db
    .selectDistinct({ assetId: placements.assetId, pageId: pages.id, title: pages.title })
    .from(placements)
    .innerJoin(pages, eq(placements.pageId, pages.id))
    .where(inArray(placements.assetId, [...assetIds]));
  const uses = new Map<string, { id: string; title: string }[]>();
  for (const { assetId, pageId, title } of rows) {
    uses.set(assetId, [...(uses.get(assetId) ?? []), { id: pageId, title }]);
  }
  return uses;
}

async function namesOf(context: Context, personIds: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const rows = await context.db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(inArray(people.id, [...new Set(personIds)]));
  return new Map(rows.map((row) => [row.id, row.name]));
}

/** What `core` has to know of a piece. */
export function pieceOf(row: AssetRow): Piece {
  return {
    id: row.id,
    stem: row.stem,
    extension: row.extension,
    size: { width: row.widthPx, height: row.heightPx },
    bytes: row.bytes,
    alpha: row.alpha,
    animated: row.animated,
    label: row.label,
  };
}
