import { Router } from 'express';
import type { Context } from '../context.ts';
import { newId } from '../new-id.ts';
import { route } from '../route.ts';
import { addColleague, changeColleague, readColleagues, renewPassword } from './colleagues.ts';
import { allowed, personOf } from './guard.ts';

/** Who works here, as the site owner settles it. */
export function colleagueRoutes(context: Context): Router {
  const router = Router();
  const owner = allowed('set-rules');
  route(router, 'get /people/names', allowed('say-rights'), async (_request, response) => {
    const all = await readColleagues(context);
    response.json(all.flatMap(({ left, email: _, ...person }) => (left ? [] : [person])));
  });
  route(router, 'get /people', owner, async (_request, response) => {
    response.json(await readColleagues(context));
  });
  route(router, 'post /people', owner, async (request, response) => {
    const wish = request.body;
    const id = newId(context, request);
    response.status(201).json(await addColleague(context, wish, personOf(request), new Date(), id));
  });
  route(router, 'patch /people/{id}', owner, async (request, response) => {
    const change = request.body;
    const id = request.params.id;
    response.json(await changeColleague(context, id, change, personOf(request), new Date()));
  });
  route(router, 'post /people/{id}/password', owner, async (request, response) => {
    const id = request.params.id;
    response.json(await renewPassword(context, id, personOf(request), new Date()));
  });
  return router;
}
