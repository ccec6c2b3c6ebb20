import { eq, inArray } from 'drizzle-orm';
import type { Asset } from '#api/assets.ts';
import type { CropRect } from '#core/media/crop.ts';
import type { Size } from '#core/media/dimensions.ts';
import { recipeKey, trimmedSize } from '#core/media/recipe.ts';
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
    ...trimmedSize(originalSize(row), trimOf(row)),
    bytes: row.bytes,
    format: row.format,
    alpha: row.alpha,
    animated: row.animated,
    label: row.label,
    drafted: row.drafted,
    conditions: row.conditions,
    trim: trimOf(row),
    original: originalSize(row),
    foldedInto: row.foldedInto,
    deletedAt: row.deletedAt?.toISOString() ?? null,
    originalName: row.originalName,
    thumb: thumbAddress(context, row),
    view: screenAddress(context, row, null, VIEW_PX),
    createdAt: row.createdAt.toISOString(),
    createdBy: names.get(row.createdBy) ?? 'Somebody',
    usedOn: uses.get(row.id) ?? [],
  }));
}

type Sized = Pick<AssetRow, 'id' | 'widthPx' | 'heightPx' | 'trim'>;

/** The small picture of a piece, without a border that was trimmed. */
export function thumbAddress(context: Context, row: Sized): string {
  return screenAddress(context, row, trimOf(row), THUMB_PX);
}

function screenAddress(context: Context, row: Sized, trim: CropRect | null, wish: number): string {
  const { width } = trimmedSize(originalSize(row), trim);
  return signedAddress(context, thumbPath(row.id, recipeKey({ crop: trim }), Math.min(wish, width)));
}

function originalSize(row: Sized): Size {
  return { width: row.widthPx, height: row.heightPx };
}

function trimOf(row: Sized): CropRect | null {
  return row.trim ?? null;
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
    size: originalSize(row),
    trim: trimOf(row),
    bytes: row.bytes,
    alpha: row.alpha,
    animated: row.animated,
    label: row.label,
  };
}
