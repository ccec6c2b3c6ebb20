import { type Request, type Response, Router } from 'express';
import type { Context } from '../context.ts';
import { assertMayOrder, stopJob } from '../jobs/queue.ts';
import { newId } from '../new-id.ts';
import { allowed, assertAllowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { beginRun, goOnWithRun, previewRun, readRun, recentRuns, runJob, takeRunBack } from './runs.ts';

/** Many pieces in one go: what would be done, and the doing of it. */
export function runRoutes(context: Context): Router {
  const router = Router();
  const mayRun = allowed('say-rights');

  route(router, 'post /run-previews', mayRun, async (request, response) => {
    response.json(await previewRun(context, request.body, personOf(request)));
  });

  route(router, 'post /runs', mayRun, async (request, response) => {
    const { order, seen } = request.body;
    const person = personOf(request);
    if (order.into === 'zip') assertAllowed(person, 'take-away');
    await assertMayOrder(context, person.id);
    const id = await beginRun(context, order, seen, person, new Date(), newId(context, request));
    response.status(202).json(await readRun(context, id, person, new Date()));
  });

  route(router, 'get /runs', mayRun, async (request, response) => {
    response.json(await recentRuns(context, personOf(request).id, new Date()));
  });

  route(router, 'get /runs/{id}', mayRun, async (request, response) => {
    response.json(await readRun(context, request.params.id, personOf(request), new Date()));
  });

  /** What is done to a run that is there, answered with how it stands afterwards. */
  const after =
    (change: (id: string, personId: string) => Promise<void>) =>
    async (request: Request & { readonly params: { readonly id: string } }, response: Response) => {
      const { id: personId } = personOf(request);
      const { id } = await runJob(context, request.params.id, personId);
      await change(id, personId);
      response.status(202).json(await readRun(context, id, personOf(request), new Date()));
    };
  route(
    router,
    'post /runs/{id}/stop',
    mayRun,
    after((id) => stopJob(context, id)),
  );
  route(
    router,
    'post /runs/{id}/go-on',
    mayRun,
    after((id, personId) => goOnWithRun(context, id, personId)),
  );
  route(
    router,
    'post /runs/{id}/take-back',
    mayRun,
    after((id, personId) => takeRunBack(context, id, personId, new Date())),
  );
  return router;
}
