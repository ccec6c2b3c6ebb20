import { and, eq, inArray, sql } from 'drizzle-orm';
import type { FilmRecipe } from '#core/film/recipe.ts';
import type { Queries } from '../db/connection.ts';
import { films, jobs } from '../db/schema.ts';
import { addJob } from '../jobs/queue.ts';
import type { AssetRow } from '../shelf/present.ts';
import { MAKE_FILM } from './kinds.ts';
import { recipeName } from './made-store.ts';

interface Making {
  readonly assetId: string;
  /** As it is called where work is told of. */
  readonly title: string;
  readonly recipe: FilmRecipe;
  readonly personId: string;
}

/** Orders that a film is made for the web; what was under way by another recipe is stopped. */
export async function orderMaking(
  tx: Queries,
  { assetId, title, recipe, personId }: Making,
  now: Date,
): Promise<void> {
  const [row] = await tx.select({ id: films.makingId }).from(films).where(eq(films.assetId, assetId));
  if (row?.id) {
    const isUnderWay = and(eq(jobs.id, row.id), inArray(jobs.state, ['waiting', 'running']));
    const state = sql`if(${jobs.state} = 'waiting', 'stopped', ${jobs.state})`;
    await tx.update(jobs).set({ stopAsked: true, state }).where(isUnderWay);
  }
  const input = { assetId, recipe: recipeName(recipe) };
  const id = await addJob({ db: tx }, { kind: MAKE_FILM, title, input, personId }, now);
  await tx.update(films).set({ makingId: id }).where(eq(films.assetId, assetId));
}

/** Says anew what is made of a film, and orders it. */
export async function changeRecipe(
  tx: Queries,
  row: AssetRow,
  recipe: FilmRecipe,
  { id: personId }: { readonly id: string },
  now: Date,
): Promise<void> {
  await tx.update(films).set({ recipe }).where(eq(films.assetId, row.id));
  await orderMaking(tx, { assetId: row.id, title: row.label.title || row.stem, recipe, personId }, now);
}
