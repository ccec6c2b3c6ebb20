import { Router } from 'express';
import { ChangePersonSchema, NewPersonSchema } from '#api/people.ts';
import type { Context } from '../context.ts';
import { newId } from '../new-id.ts';
import { checked } from '../problem.ts';
import { addColleague, changeColleague, readColleagues, renewPassword } from './colleagues.ts';
import { allowed, personOf } from './guard.ts';

/** Who works here, as the site owner settles it. */
export function colleagueRoutes(context: Context): Router {
  const router = Router();
  const owner = allowed('set-rules');
  router.get('/people', owner, async (_request, response) => {
    response.json(await readColleagues(context));
  });
  router.post('/people', owner, async (request, response) => {
    const wish = checked(NewPersonSchema, request.body);
    const id = newId(context, request);
    response.status(201).json(await addColleague(context, wish, personOf(request), new Date(), id));
  });
  router.patch('/people/:id', owner, async (request, response) => {
    const change = checked(ChangePersonSchema, request.body);
    const id = String(request.params.id);
    response.json(await changeColleague(context, id, change, personOf(request), new Date()));
  });
  router.post('/people/:id/password', owner, async (request, response) => {
    const id = String(request.params.id);
    response.json(await renewPassword(context, id, personOf(request), new Date()));
  });
  return router;
}
