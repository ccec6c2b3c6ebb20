import { and, eq } from 'drizzle-orm';
import { CUT_FORMATS, type CutFormat } from '#core/media/formats.ts';
import type { CutQuality } from '#core/media/quality.ts';
import type { Recipe } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { SharedWork } from '../at-once.ts';
import type { Context } from '../context.ts';
import { cuts } from '../db/schema.ts';
import { cutKey, originalKey } from '../storage/storage.ts';

/** What is needed of a piece to make cuts of it. */
export interface CutSource {
  readonly id: string;
  readonly sha256: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly animated: boolean;
}

export interface StoredCut {
  readonly key: string;
  readonly bytes: number;
  readonly mime: string;
}

const shared = new SharedWork<StoredCut>();

/**
 * The stored cut, made now if it is not there yet. Asked for twice at once, it is made once; when everybody who asked
 * with a `signal` has left, it is not made to its end.
 */
export function ensureCut(
  context: Context,
  source: CutSource,
  recipe: Recipe,
  width: number,
  format: CutFormat,
  quality: number,
  signal?: AbortSignal,
): Promise<StoredCut> {
  const key = cutKey(source.sha256, recipeKey(recipe), width, format, quality);
  return shared.do(key, signal, (left) =>
    findOrMake(context, source, { recipe, width, format, quality, key }, left),
  );
}

export interface CutWish {
  readonly recipe: Recipe;
  readonly width: number;
  readonly format: CutFormat;
  readonly quality: CutQuality;
}

/** The stored cut, if it was made before. */
export async function storedCut(
  context: Context,
  source: Pick<CutSource, 'id' | 'sha256'>,
  { recipe, width, format, quality }: CutWish,
): Promise<StoredCut | undefined> {
  const key = cutKey(source.sha256, recipeKey(recipe), width, format, quality);
  const [known] = await context.db
    .select({ bytes: cuts.bytes })
    .from(cuts)
    .where(
      and(
        eq(cuts.assetId, source.id),
        eq(cuts.recipe, recipeKey(recipe)),
        eq(cuts.widthPx, width),
        eq(cuts.format, format),
        eq(cuts.quality, quality),
      ),
    );
  if (!known || !(await context.storage.has(key))) return undefined;
  return { key, mime: CUT_FORMATS[format].mime, bytes: known.bytes };
}

async function findOrMake(
  context: Context,
  source: CutSource,
  { key, ...wish }: CutWish & { readonly key: string },
  left: AbortSignal,
): Promise<StoredCut> {
  const known = await storedCut(context, source, wish);
  if (known) return known;
  const { recipe, width, format, quality } = wish;
  const { mime } = CUT_FORMATS[format];
  const row = { assetId: source.id, recipe: recipeKey(recipe), widthPx: width, format, quality };
  const began = performance.now();
  const original = { width: source.widthPx, height: source.heightPx };
  const bytes = await context.storage.withFile(originalKey(source.sha256), (path) =>
    context.pictures.cut(path, { original, recipe, width, format, quality, animated: source.animated }, left),
  );
  await context.storage.put(key, bytes);
  await writeRow(context, row, bytes.length, (performance.now() - began) / 1000);
  return { key, mime, bytes: bytes.length };
}

/** Stores a cut that was made elsewhere, as of a first look. `recipe` is its key. */
export async function storeCut(
  context: Context,
  source: Pick<CutSource, 'id' | 'sha256'>,
  cut: {
    readonly recipe: string;
    readonly width: number;
    readonly format: CutFormat;
    readonly quality: number;
  },
  bytes: Buffer,
): Promise<void> {
  const { recipe, width, format, quality } = cut;
  await context.storage.put(cutKey(source.sha256, recipe, width, format, quality), bytes);
  await writeRow(context, { assetId: source.id, recipe, widthPx: width, format, quality }, bytes.length, 0);
}

async function writeRow(
  context: Context,
  row: Omit<typeof cuts.$inferInsert, 'bytes' | 'seconds'>,
  bytes: number,
  seconds: number,
): Promise<void> {
  await context.db
    .insert(cuts)
    .values({ ...row, bytes, seconds })
    .onDuplicateKeyUpdate({ set: { bytes, seconds } });
}
