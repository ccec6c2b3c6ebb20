import { asc, count } from 'drizzle-orm';
import { type Request, type Response, Router } from 'express';
import { AssetChangeSchema, AssetQuerySchema } from '#api/assets.ts';
import { LikenessQuerySchema, SampleWishSchema } from '#api/likeness.ts';
import { maybeRecipe } from '#core/media/recipe-key.ts';
import { withAncestors } from '#core/naming/folders.ts';
import type { Context } from '../context.ts';
import { assets, folders } from '../db/schema.ts';
import { versionOf } from '../if-match.ts';
import { proposeFocal } from '../imaging/focal.ts';
import { type CurveWish, likenessCurve, withSample } from '../imaging/likeness/curves.ts';
import { madeCuts, throwCuts } from '../imaging/made-cuts.ts';
import { allowed, personOf } from '../people/guard.ts';
import { checked, Refusal } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import { changeAsset, findAsset } from './change.ts';
import { presentAssets } from './present.ts';
import { standing } from './put-away.ts';
import { askShelf } from './query.ts';

export function shelfRoutes(context: Context): Router {
  const router = Router();

  router.get('/assets', async (request, response) => {
    const answer = await askShelf(context, checked(AssetQuerySchema, request.query), personOf(request).id);
    response.json({
      assets: await presentAssets(context, answer.rows),
      found: answer.found,
      held: answer.held,
      cursor: answer.cursor,
    });
  });

  router.get('/assets/:id', async (request, response) => {
    const [asset] = await presentAssets(context, [await findAsset(context, request.params.id)]);
    response.json(asset);
  });

  router.get('/assets/:id/focal', async (request, response) => {
    response.json(await proposeFocal(context, await findAsset(context, request.params.id)));
  });

  router.get('/assets/:id/likeness', async (request, response) => {
    const query = checked(LikenessQuerySchema, request.query);
    const wish = await curveWish(context, query);
    const row = await findAsset(context, request.params.id);
    const curve = await likenessCurve(context, row, wish, leftSignal(request, response));
    if (!response.destroyed) response.json(curve);
  });

  router.post('/assets/:id/likeness', allowed('say-rights'), async (request, response) => {
    const body = checked(SampleWishSchema, request.body);
    const wish = await curveWish(context, body);
    const row = await findAsset(context, String(request.params.id));
    const curve = await withSample(context, row, wish, body, leftSignal(request, response));
    if (!response.destroyed) response.json(curve);
  });

  router.get('/assets/:id/cuts', async (request, response) => {
    response.json(await madeCuts(context, await findAsset(context, request.params.id)));
  });

  router.delete('/assets/:id/cuts', allowed('say-rights'), async (request, response) => {
    const row = await findAsset(context, String(request.params.id));
    await throwCuts(context, row, () => true);
    response.json(await madeCuts(context, row));
  });

  router.patch('/assets/:id', async (request, response) => {
    const change = checked(AssetChangeSchema, request.body);
    const row = await changeAsset(
      context,
      request.params.id,
      versionOf(request),
      change,
      personOf(request),
      new Date(),
    );
    const [asset] = await presentAssets(context, [row]);
    response.json(asset);
  });

  router.get('/folders', async (_request, response) => {
    const [named, counted] = await Promise.all([
      context.db.select().from(folders).orderBy(asc(folders.path)),
      context.db
        .select({ path: assets.folder, pieces: count() })
        .from(assets)
        .where(standing())
        .groupBy(assets.folder),
    ]);
    response.json(
      countUp(
        named.map((row) => row.path),
        counted,
      ),
    );
  });
  return router;
}

interface AskedCurve {
  readonly recipe: string;
  readonly width: number;
  readonly target: string;
}

async function curveWish(context: Context, { recipe: key, width, target }: AskedCurve): Promise<CurveWish> {
  const recipe = maybeRecipe(key);
  if (!recipe) throw new Refusal(422, 'This recipe cannot be read. Nothing was measured.');
  const { rules } = await readTarget(context, target);
  return { recipe, width, rules };
}

/** Aborts when whoever asked has gone, so that nothing is measured for nobody. */
function leftSignal(request: Request, response: Response): AbortSignal {
  const left = new AbortController();
  request.on('aborted', () => left.abort());
  response.on('close', () => left.abort());
  return left.signal;
}

/** Each folder with the pieces in it and in all folders below. */
function countUp(paths: readonly string[], counted: readonly { path: string; pieces: number }[]) {
  const sums = new Map<string, number>(paths.map((path) => [path, 0]));
  for (const { path, pieces } of counted) {
    for (const above of withAncestors(path)) sums.set(above, (sums.get(above) ?? 0) + pieces);
  }
  return [...sums]
    .map(([path, pieces]) => ({ path, pieces }))
    .sort((one, other) => (one.path < other.path ? -1 : 1));
}
