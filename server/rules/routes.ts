import { Router } from 'express';
import { NewTargetSchema } from '#api/targets.ts';
import { HouseRulesSchema } from '#core/page/target.ts';
import type { Context } from '../context.ts';
import { versionOf } from '../if-match.ts';
import { newId } from '../new-id.ts';
import { allowed, personOf } from '../people/guard.ts';
import { checked } from '../problem.ts';
import { addTarget, bringBackTarget, readTarget, readTargets, removeTarget, saveRules } from './store.ts';

export function rulesRoutes(context: Context): Router {
  const router = Router();
  router.get('/targets', async (_request, response) => {
    response.json(await readTargets(context));
  });
  router.get('/targets/:id', async (request, response) => {
    response.json(await readTarget(context, request.params.id));
  });
  router.post('/targets', allowed('set-rules'), async (request, response) => {
    const wish = checked(NewTargetSchema, request.body);
    const { id } = personOf(request);
    const key = newId(context, request);
    response.status(201).json(await context.db.transaction((tx) => addTarget(tx, wish, id, new Date(), key)));
  });
  router.delete('/targets/:id', allowed('set-rules'), async (request, response) => {
    await removeTarget(context, String(request.params.id), personOf(request), new Date());
    response.status(204).end();
  });
  router.post('/targets/:id/back', allowed('set-rules'), async (request, response) => {
    const id = String(request.params.id);
    response.json(await bringBackTarget(context, id, personOf(request), new Date()));
  });
  router.put('/targets/:id', allowed('set-rules'), async (request, response) => {
    const rules = checked(HouseRulesSchema, request.body);
    response.json(
      await saveRules(
        context,
        String(request.params.id),
        versionOf(request),
        rules,
        personOf(request),
        new Date(),
      ),
    );
  });
  return router;
}
