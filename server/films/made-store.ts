import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { FILM_FORMATS } from '#core/film/facts.ts';
import { type MadeFile, type StoredMade, StoredMadeSchema } from '#core/film/made.ts';
import { type FilmRecipe, FilmRecipeSchema, filmRecipeKey, WHOLE_FILM } from '#core/film/recipe.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { films } from '../db/schema.ts';
import { filmKey } from '../storage/storage.ts';

/** What is made of a film, as it is stored; nothing where that cannot be read. */
export function recipeOf({ recipe }: { readonly recipe?: unknown }): FilmRecipe {
  const read = v.safeParse(FilmRecipeSchema, recipe);
  return read.success ? read.output : WHOLE_FILM;
}

const NAME_LETTERS = 20;

/** A recipe in letters that are safe in a name, however many parts it leaves out. */
export function recipeName(recipe: FilmRecipe): string {
  const key = filmRecipeKey(recipe);
  return key === 'plain' ? key : createHash('sha256').update(key).digest('hex').slice(0, NAME_LETTERS);
}

/** All files that were made of a film, also by earlier recipes. */
export function allMade({ made }: { readonly made?: unknown }): readonly StoredMade[] {
  const read = v.safeParse(v.array(StoredMadeSchema), made ?? []);
  return read.success ? read.output : [];
}

/** The files that were made of a film by the recipe that holds. */
export function madeNow(row: { readonly made?: unknown; readonly recipe?: unknown }): readonly MadeFile[] {
  const name = recipeName(recipeOf(row));
  return allMade(row).flatMap(({ recipe, ...file }) => (recipe === name ? [file] : []));
}

/** Where a file lies that was made of a film. */
export const madeKey = (sha256: string, { recipe, width, format }: StoredMade): string =>
  filmKey(sha256, recipe, width, FILM_FORMATS[format].extension);

/** What a film that browsers do not play as it came is looked at by: all of it, made for the web. Null while that is not made. */
export function wholeFile(row: {
  readonly filmSha256: string | null;
  readonly made?: unknown;
}): { readonly key: string; readonly mime: string } | null {
  const { filmSha256: sha256 } = row;
  const plain = allMade(row).filter(
    ({ recipe, format }) => recipe === recipeName(WHOLE_FILM) && format !== 'webm',
  );
  const [widest] = [...plain].sort((one, other) => other.width - one.width);
  if (sha256 === null || !widest) return null;
  return { key: madeKey(sha256, widest), mime: FILM_FORMATS[widest.format].mime };
}

/** Changes what is written down of the files of a film, one change after the other. */
export async function changeMade(
  { db }: { readonly db: Context['db'] },
  assetId: string,
  change: (
    made: readonly StoredMade[],
    tx: Queries,
  ) => readonly StoredMade[] | Promise<readonly StoredMade[]>,
): Promise<void> {
  await db.transaction(async (tx) => {
    const [row] = await tx
      .select({ made: films.made })
      .from(films)
      .where(eq(films.assetId, assetId))
      .for('update');
    if (!row) return;
    const made = await change(allMade(row), tx);
    await tx
      .update(films)
      .set({ made: [...made] })
      .where(eq(films.assetId, assetId));
  });
}
