import { Router } from 'express';
import { withClientAbort } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { readTracks, removeTrack, saveTrack, trackKind } from '../films/captions.ts';
import { filmHosts, keepHostToken } from '../films/film-host.ts';
import { captionsInside } from '../films/inside.ts';
import { orderMove } from '../films/move.ts';
import { filmOfAnimation } from '../films/of-animation.ts';
import { filmWork, makeAgain, stopMaking } from '../films/work.ts';
import { versionOf } from '../if-match.ts';
import { proposeFocal } from '../imaging/focal.ts';
import { lightsOf } from '../imaging/lights.ts';
import { madeCuts, throwCuts } from '../imaging/made-cuts.ts';
import { presentJob, readJob } from '../jobs/queue.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { changeAsset, findAsset } from './change.ts';
import { inUse } from './in-use.ts';
import { presentAsset, presentAssets } from './present.ts';
import { askShelf, countShelf } from './query.ts';

export function shelfRoutes(context: Context): Router {
  const router = Router();

  route(router, 'get /assets/{id}/tracks', async (request, response) => {
    response.json(await readTracks(context, request.params.id));
  });
  route(router, 'put /assets/{id}/tracks/{kind}/{language}', async (request, response) => {
    const { id, kind, language } = request.params;
    const track = { kind: trackKind(kind), language, version: versionOf(request), cues: request.body.cues };
    response.json(await saveTrack(context, id, track, personOf(request), new Date()));
  });
  route(router, 'delete /assets/{id}/tracks/{kind}/{language}', async (request, response) => {
    const { id, kind, language } = request.params;
    await removeTrack(context, id, { kind: trackKind(kind), language }, personOf(request), new Date());
    response.status(204).end();
  });

  route(router, 'get /assets/{id}/film', async (request, response) => {
    response.json(await filmWork(context, request.params.id, personOf(request)));
  });
  route(router, 'post /assets/{id}/film-of-it', async (request, response) => {
    const film = await withClientAbort(context, request, response, (signal) =>
      filmOfAnimation(context, request.params.id, personOf(request), signal),
    );
    response.status(201).json(await presentAsset(context, film, personOf(request)));
  });
  route(router, 'get /film-hosts', async (_request, response) => {
    response.json(await filmHosts(context));
  });
  route(router, 'put /film-hosts/{id}/token', allowed('set-rules'), async (request, response) => {
    const wish = { id: request.params.id, token: request.body.token };
    await keepHostToken(context, wish, personOf(request), new Date());
    response.json(await filmHosts(context));
  });
  route(router, 'post /assets/{id}/film/move', allowed('edit-pages'), async (request, response) => {
    const input = { assetId: request.params.id, ...request.body };
    const id = await orderMove(context, input, personOf(request), new Date());
    response.status(202).json(presentJob(await readJob(context, id)));
  });
  route(router, 'get /assets/{id}/film/inside/{at}', async (request, response) => {
    const { id: assetId, at } = request.params;
    const text = await captionsInside(context, { assetId, at: Number(at) }, personOf(request));
    response.json({ text });
  });
  route(router, 'post /assets/{id}/film/make', async (request, response) => {
    response.status(202).json(await makeAgain(context, request.params.id, personOf(request), new Date()));
  });
  route(router, 'post /assets/{id}/film/stop', async (request, response) => {
    response.status(202).json(await stopMaking(context, request.params.id, personOf(request)));
  });

  route(router, 'get /assets', async (request, response) => {
    const answer = await askShelf(context, request.query, personOf(request));
    response.json({
      assets: await presentAssets(context, answer.rows, personOf(request)),
      cursor: answer.cursor,
    });
  });

  route(router, 'get /assets/count', async (request, response) => {
    response.json(await countShelf(context, request.query, personOf(request)));
  });

  route(router, 'get /in-use', async (request, response) => {
    response.json(await inUse(context, request.query.field, request.query.begins));
  });

  route(router, 'get /assets/{id}', async (request, response) => {
    const asset = await presentAsset(context, await findAsset(context, request.params.id), personOf(request));
    response.json(asset);
  });

  route(router, 'get /assets/{id}/focal', async (request, response) => {
    response.json(await proposeFocal(context, await findAsset(context, request.params.id)));
  });

  route(router, 'get /assets/{id}/lights', async (request, response) => {
    response.json(await lightsOf(context, await findAsset(context, request.params.id)));
  });

  route(router, 'get /assets/{id}/cuts', async (request, response) => {
    response.json(await madeCuts(context, await findAsset(context, request.params.id), personOf(request)));
  });

  route(router, 'delete /assets/{id}/cuts', allowed('say-rights'), async (request, response) => {
    const row = await findAsset(context, request.params.id);
    await throwCuts(context, row, () => true);
    response.json(await madeCuts(context, row, personOf(request)));
  });

  route(router, 'patch /assets/{id}', async (request, response) => {
    const change = request.body;
    const row = await changeAsset(
      context,
      request.params.id,
      versionOf(request),
      change,
      personOf(request),
      new Date(),
    );
    const asset = await presentAsset(context, row, personOf(request));
    response.json(asset);
  });

  return router;
}
