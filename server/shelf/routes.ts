import { Router } from 'express';
import { AssetChangeSchema, AssetQuerySchema } from '#api/assets.ts';
import type { Context } from '../context.ts';
import { versionOf } from '../if-match.ts';
import { proposeFocal } from '../imaging/focal.ts';
import { lightsOf } from '../imaging/lights.ts';
import { madeCuts, throwCuts } from '../imaging/made-cuts.ts';
import { allowed, personOf } from '../people/guard.ts';
import { checked } from '../problem.ts';
import { changeAsset, findAsset } from './change.ts';
import { presentAssets } from './present.ts';
import { askShelf, countShelf } from './query.ts';

export function shelfRoutes(context: Context): Router {
  const router = Router();

  router.get('/assets', async (request, response) => {
    const answer = await askShelf(context, checked(AssetQuerySchema, request.query), personOf(request).id);
    response.json({
      assets: await presentAssets(context, answer.rows, personOf(request)),
      cursor: answer.cursor,
    });
  });

  router.get('/assets/count', async (request, response) => {
    response.json(await countShelf(context, checked(AssetQuerySchema, request.query), personOf(request).id));
  });

  router.get('/assets/:id', async (request, response) => {
    const [asset] = await presentAssets(
      context,
      [await findAsset(context, request.params.id)],
      personOf(request),
    );
    response.json(asset);
  });

  router.get('/assets/:id/focal', async (request, response) => {
    response.json(await proposeFocal(context, await findAsset(context, request.params.id)));
  });

  router.get('/assets/:id/lights', async (request, response) => {
    response.json(await lightsOf(context, await findAsset(context, request.params.id)));
  });

  router.get('/assets/:id/cuts', async (request, response) => {
    response.json(await madeCuts(context, await findAsset(context, request.params.id), personOf(request)));
  });

  router.delete('/assets/:id/cuts', allowed('say-rights'), async (request, response) => {
    const row = await findAsset(context, String(request.params.id));
    await throwCuts(context, row, () => true);
    response.json(await madeCuts(context, row, personOf(request)));
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
    const [asset] = await presentAssets(context, [row], personOf(request));
    response.json(asset);
  });

  return router;
}
