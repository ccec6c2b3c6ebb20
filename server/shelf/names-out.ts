import { eq, inArray } from 'drizzle-orm';
import type { NameOut } from '#core/page/redirects.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { namesOut } from '../db/schema.ts';
import type { AssetRow } from './present.ts';

/** How files are called since the stem is set apart in their names (`cutFileName`). */
const NAME_SCHEME = 2;

/** Writes down that files of these pieces went out under the names they have now. */
export async function keepNamesOut(
  context: Context,
  rows: readonly Pick<AssetRow, 'id' | 'stem'>[],
  now: Date,
): Promise<void> {
  if (rows.length === 0) return;
  await context.db
    .insert(namesOut)
    .ignore()
    .values(rows.map(({ id, stem }) => ({ stem, assetId: id, at: now, scheme: NAME_SCHEME })));
}

/** The names under which files of pieces went out and are not called now, by piece. */
export async function formerNames(
  context: Context,
  rows: readonly Pick<AssetRow, 'id' | 'stem'>[],
): Promise<ReadonlyMap<string, readonly NameOut[]>> {
  if (rows.length === 0) return new Map();
  const found = await context.db
    .select()
    .from(namesOut)
    .where(
      inArray(
        namesOut.assetId,
        rows.map(({ id }) => id),
      ),
    )
    .orderBy(namesOut.at, namesOut.stem);
  return new Map(
    rows.map(({ id, stem }) => [
      id,
      found.filter((one) => one.assetId === id && (one.stem !== stem || one.scheme !== NAME_SCHEME)),
    ]),
  );
}

/** The piece whose files went out under a name, or undefined. */
export async function holderOfName(db: Queries, stem: string): Promise<string | undefined> {
  const [row] = await db.select({ assetId: namesOut.assetId }).from(namesOut).where(eq(namesOut.stem, stem));
  return row?.assetId;
}
