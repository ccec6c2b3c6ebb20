import { Router } from 'express';
import { HouseRulesSchema } from '#core/page/target.ts';
import type { Context } from '../context.ts';
import { versionOf } from '../if-match.ts';
import { allowed, personOf } from '../people/guard.ts';
import { checked } from '../problem.ts';
import { readTarget, readTargets, saveRules } from './store.ts';

export function rulesRoutes(context: Context): Router {
  const router = Router();
  router.get('/targets', async (_request, response) => {
    response.json(await readTargets(context));
  });
  router.get('/targets/:id', async (request, response) => {
    response.json(await readTarget(context, request.params.id));
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
