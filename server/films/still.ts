import { createHash, randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { type FilmFacts, filmKind } from '#core/film/facts.ts';
import { keptSpans, madeSize } from '#core/film/recipe.ts';
import type { Context } from '../context.ts';
import { assets, cuts, films, held, likenessCurves, pictures } from '../db/schema.ts';
import type { JobTools } from '../jobs/work.ts';
import { HttpProblem } from '../problem.ts';
import type { AssetRow } from '../shelf/present.ts';
import { sha256Of } from '../storage/sha256.ts';
import { cutKey, originalKey } from '../storage/storage.ts';
import { orderRemovals } from '../tidy/removals.ts';
import { workFolder } from '../work-folder.ts';
import { changes, type FilmSource, SAFE } from './graph.ts';
import { runLong } from './long-program.ts';

/** Of a film's length: the beginning is often black, or a hand before the lens. */
const STILL_AT = 0.1;
const LATEST_STILL_MILLIS = 5000;
const STILL_SECONDS = 120;
const MEMORY = 8_000_000_000;

/** The moment that shows a film before it plays, in milliseconds of its file. */
export function stillMoment({ film, recipe }: Pick<FilmSource, 'film' | 'recipe'>): number {
  if (recipe.still !== null) return recipe.still;
  const [first] = keptSpans(recipe, film.seconds);
  return first
    ? Math.round(first.from + Math.min(LATEST_STILL_MILLIS, (first.to - first.from) * STILL_AT))
    : 0;
}

const keyOf = (source: Pick<FilmSource, 'film' | 'recipe'>): string => {
  const { turn, crop } = source.recipe;
  const text = JSON.stringify([stillMoment(source), turn, crop]);
  return createHash('sha256').update(text).digest('hex');
};

/** The filters that make a picture of a film as it is seen. */
export const stillFilter = ({ film, recipe }: Pick<FilmSource, 'film' | 'recipe'>): string => {
  if (!film.picture) return '';
  const { width, height } = madeSize(recipe, film.picture);
  return [...changes(film.picture, recipe), `scale=${width}:${height}`, 'setsar=1'].join(',');
};

/** Makes the picture of a moment, at `to`, as a PNG. */
async function drawStill(
  source: FilmSource,
  { at, to, signal }: { readonly at: number; readonly to: string; readonly signal: AbortSignal },
): Promise<void> {
  await runLong({
    program: 'ffmpeg',
    args: [
      ...['-nostdin', '-v', 'error', '-ss', (at / 1000).toFixed(3), ...SAFE, '-i', source.path],
      ...['-an', '-vf', stillFilter(source), '-frames:v', '1', '-y', to],
    ],
    bytes: MEMORY,
    seconds: STILL_SECONDS,
    signal,
  });
}

/** The picture that shows a film is the one that its recipe says; another one takes the place of the one before. */
export async function keepStill(
  context: Context,
  row: AssetRow,
  source: FilmSource,
  { signal }: Pick<JobTools, 'signal'>,
): Promise<void> {
  const { recipe, film } = source;
  if (!film.picture) return;
  const [known] = await context.db
    .select({ stillKey: films.stillKey })
    .from(films)
    .where(eq(films.assetId, row.id));
  const isFirst =
    recipe.still === null &&
    recipe.turn === 0 &&
    recipe.crop === null &&
    recipe.from === 0 &&
    recipe.leftOut.length === 0;
  const key = isFirst ? null : keyOf(source);
  if (!known || known.stillKey === key) return;
  const folder = await workFolder(context);
  try {
    const path = join(folder, `${randomUUID()}.png`);
    await drawStill(source, { at: stillMoment(source), to: path, signal });
    await takePlace(context, row, { path, key, film });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

interface NewStill {
  readonly path: string;
  readonly key: string | null;
  readonly film: FilmFacts;
}

async function takePlace(context: Context, row: AssetRow, { path, key, film }: NewStill): Promise<void> {
  const sha256 = await sha256Of(path);
  const facts = await context.pictures
    .facts({ path, name: `The still of the ${filmKind(film)}` })
    .catch((cause: unknown) => {
      throw new HttpProblem(
        422,
        'The picture at this moment cannot be read. The one that was there stays.',
        {},
        { cause },
      );
    });
  await context.storage.take(originalKey(sha256), path, sha256);
  const now = new Date();
  await context.db.transaction(async (tx) => {
    const [before] = await tx.select().from(held).where(eq(held.id, row.id));
    if (!before) return;
    const made = await tx.select().from(cuts).where(eq(cuts.assetId, row.id));
    const keys = made.map((cut) => cutKey(before.sha256, cut.recipe, cut.widthPx, cut.format, cut.quality));
    await tx.delete(cuts).where(eq(cuts.assetId, row.id));
    await tx.delete(likenessCurves).where(eq(likenessCurves.sha256, before.sha256));
    await tx
      .update(pictures)
      .set({ sha256, format: facts.format, bytes: facts.bytes, alpha: facts.alpha, trim: null })
      .where(eq(pictures.assetId, row.id));
    await tx
      .update(assets)
      .set({ widthPx: facts.size.width, heightPx: facts.size.height })
      .where(eq(assets.id, row.id));
    await tx.update(films).set({ stillKey: key }).where(eq(films.assetId, row.id));
    if (before.sha256 !== sha256) await orderRemovals(tx, [originalKey(before.sha256), ...keys], now);
  });
}
