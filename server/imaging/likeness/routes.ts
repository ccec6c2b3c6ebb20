import { Router } from 'express';
import { LikenessQuerySchema, SampleWishSchema } from '#api/likeness.ts';
import { maybeRecipe } from '#core/media/recipe-key.ts';
import { clientGoneSignal } from '../../client-abort.ts';
import type { Context } from '../../context.ts';
import { allowed } from '../../people/guard.ts';
import { checked, HttpProblem } from '../../problem.ts';
import { readTarget } from '../../rules/store.ts';
import { findAsset } from '../../shelf/change.ts';
import { type CurveWish, likenessCurve, withSample } from './curves.ts';

export function likenessRoutes(context: Context): Router {
  const router = Router();

  router.get('/assets/:id/likeness', async (request, response) => {
    const query = checked(LikenessQuerySchema, request.query);
    const wish = await curveWish(context, query);
    const row = await findAsset(context, request.params.id);
    const curve = await likenessCurve(context, row, wish, clientGoneSignal(response));
    if (!response.destroyed) response.json(curve);
  });

  router.post('/assets/:id/likeness', allowed('say-rights'), async (request, response) => {
    const body = checked(SampleWishSchema, request.body);
    const wish = await curveWish(context, body);
    const row = await findAsset(context, String(request.params.id));
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
