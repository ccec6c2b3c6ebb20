import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { FilmWork } from '#api/films.ts';
import { mayChangePiece, type Person } from '#api/people.ts';
import { HeardSchema } from '#core/film/heard.ts';
import type { Context } from '../context.ts';
import { films, jobs } from '../db/schema.ts';
import { presentJob, stopJob } from '../jobs/queue.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { findAsset } from '../shelf/change.ts';
import { seen } from '../shelf/seen.ts';
import { recipeOf } from './made-store.ts';
import { orderMaking } from './order.ts';

/** How far the work on a film is. */
export async function filmWork(context: Context, assetId: string, person: Person): Promise<FilmWork> {
  seen(await findAsset(context, assetId), person);
  const [row] = await context.db
    .select({ heard: films.heard, wave: films.wave, job: jobs })
    .from(films)
    .leftJoin(jobs, eq(jobs.id, films.makingId))
    .where(eq(films.assetId, assetId));
  if (!row) throw notFound('This film');
  const heard = v.safeParse(HeardSchema, row.heard);
  return {
    heard: heard.success ? heard.output : null,
    wave: row.wave ?? '',
    job: row.job && presentJob(row.job),
  };
}

/** Orders a film to be made anew, or to go on being made. */
export async function makeAgain(
  context: Context,
  assetId: string,
  person: Person,
  now: Date,
): Promise<FilmWork> {
  const row = await ownFilm(context, assetId, person);
  const title = row.label.title || row.stem;
  await context.db.transaction((tx) =>
    orderMaking(tx, { assetId, title, recipe: recipeOf(row), personId: person.id }, now),
  );
  return filmWork(context, assetId, person);
}

/** Stops the making of a film; the files that are made stay. */
export async function stopMaking(context: Context, assetId: string, person: Person): Promise<FilmWork> {
  await ownFilm(context, assetId, person);
  const { job } = await filmWork(context, assetId, person);
  if (job) await stopJob(context, job.id);
  return filmWork(context, assetId, person);
}

/** A film that somebody may change. */
export async function ownFilm(context: Context, assetId: string, person: Person) {
  const row = seen(await findAsset(context, assetId), person);
  if (row.kind !== 'film') throw notFound('This film');
  if (!mayChangePiece(person, row.createdBy))
    throw new HttpProblem(403, 'Somebody else handed it in: an editor says what is made of it.');
  return row;
}
