import { Router } from 'express';
import { maybeRecipe } from '#core/media/recipe-key.ts';
import { clientGoneSignal } from '../../client-abort.ts';
import type { Context } from '../../context.ts';
import { allowed } from '../../people/guard.ts';
import { HttpProblem } from '../../problem.ts';
import { route } from '../../route.ts';
import { readTarget } from '../../rules/store.ts';
import { findAsset } from '../../shelf/change.ts';
import { type CurveWish, likenessCurve, withSample } from './curves.ts';

export function likenessRoutes(context: Context): Router {
  const router = Router();

  route(router, 'get /assets/{id}/likeness', async (request, response) => {
    const query = request.query;
    const wish = await curveWish(context, query);
    const row = await findAsset(context, request.params.id);
    const curve = await likenessCurve(context, row, wish, clientGoneSignal(response));
    if (!response.destroyed) response.json(curve);
  });

  route(router, 'post /assets/{id}/likeness', allowed('say-rights'), async (request, response) => {
    const body = request.body;
    const wish = await curveWish(context, body);
    const row = await findAsset(context, request.params.id);
    const curve = await withSample(context, row, wish, body, clientGoneSignal(response));
    if (!response.destroyed) response.json(curve);
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
  if (!recipe) throw new HttpProblem(422, 'This recipe cannot be read. Nothing was measured.');
  const { rules } = await readTarget(context, target);
  return { recipe, width, rules };
}
