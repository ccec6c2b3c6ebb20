import { Router } from 'express';
import { RunBeginSchema } from '#api/runs.ts';
import { RunOrderSchema } from '#core/run/order.ts';
import type { Context } from '../context.ts';
import { assertMayOrder, stopJob } from '../jobs/queue.ts';
import { newId } from '../new-id.ts';
import { allowed, assertAllowed, personOf } from '../people/guard.ts';
import { checked } from '../problem.ts';
import { beginRun, goOnWithRun, previewRun, readRun, recentRuns, runJob, takeRunBack } from './runs.ts';

/** Many pieces in one go: what would be done, and the doing of it. */
export function runRoutes(context: Context): Router {
  const router = Router();
  const mayRun = allowed('say-rights');

  router.post('/run-previews', mayRun, async (request, response) => {
    response.json(await previewRun(context, checked(RunOrderSchema, request.body)));
  });

  router.post('/runs', mayRun, async (request, response) => {
    const { order, seen } = checked(RunBeginSchema, request.body);
    const person = personOf(request);
    if (order.into === 'zip') assertAllowed(person, 'take-away');
    await assertMayOrder(context, person.id);
    const id = await beginRun(context, order, seen, person.id, new Date(), newId(context, request));
    response.status(202).json(await readRun(context, id, person.id, new Date()));
  });

  router.get('/runs', mayRun, async (request, response) => {
    response.json(await recentRuns(context, personOf(request).id, new Date()));
  });

  router.get('/runs/:id', mayRun, async (request, response) => {
    response.json(await readRun(context, String(request.params.id), personOf(request).id, new Date()));
  });

  const deeds: Readonly<Record<string, (id: string, personId: string) => Promise<void>>> = {
    stop: (id) => stopJob(context, id),
    'go-on': (id, personId) => goOnWithRun(context, id, personId),
    'take-back': (id, personId) => takeRunBack(context, id, personId, new Date()),
  };
  for (const [name, deed] of Object.entries(deeds))
    router.post(`/runs/:id/${name}`, mayRun, async (request, response) => {
      const { id: personId } = personOf(request);
      const { id } = await runJob(context, String(request.params.id), personId);
      await deed(id, personId);
      response.status(202).json(await readRun(context, id, personId, new Date()));
    });
  return router;
}
