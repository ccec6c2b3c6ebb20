import { Router } from 'express';
import type { Context } from '../context.ts';
import { versionOf } from '../if-match.ts';
import { newId } from '../new-id.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { addTarget, bringBackTarget, readTarget, readTargets, removeTarget, saveRules } from './store.ts';

export function rulesRoutes(context: Context): Router {
  const router = Router();
  route(router, 'get /targets', async (_request, response) => {
    response.json(await readTargets(context));
  });
  route(router, 'get /targets/{id}', async (request, response) => {
    response.json(await readTarget(context, request.params.id));
  });
  route(router, 'post /targets', allowed('set-rules'), async (request, response) => {
    const wish = request.body;
    const { id } = personOf(request);
    const key = newId(context, request);
    response.status(201).json(await context.db.transaction((tx) => addTarget(tx, wish, id, new Date(), key)));
  });
  route(router, 'delete /targets/{id}', allowed('set-rules'), async (request, response) => {
    await removeTarget(context, request.params.id, personOf(request), new Date());
    response.status(204).end();
  });
  route(router, 'post /targets/{id}/back', allowed('set-rules'), async (request, response) => {
    const id = request.params.id;
    response.json(await bringBackTarget(context, id, personOf(request), new Date()));
  });
  route(router, 'put /targets/{id}', allowed('set-rules'), async (request, response) => {
    const rules = request.body;
    response.json(
      await saveRules(context, request.params.id, versionOf(request), rules, personOf(request), new Date()),
    );
  });
  return router;
}
