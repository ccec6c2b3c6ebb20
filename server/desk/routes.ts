import { desc } from 'drizzle-orm';
import { Router } from 'express';
import { may } from '#api/people.ts';
import type { Context } from '../context.ts';
import { held } from '../db/schema.ts';
import { summaries } from '../pages/routes.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { presentAssets } from '../shelf/present.ts';
import { standing } from '../shelf/put-away.ts';
import { colleaguesOf, giveErrand, takeErrandBack, withGiven } from './given.ts';
import { readHanging } from './hanging.ts';
import { givableErrands, openErrands, pagesOf } from './open-errands.ts';

const RECENT = 8;

export function deskRoutes(context: Context): Router {
  const router = Router();
  const mayEdit = allowed('edit-pages');
  route(router, 'get /desk', async (request, response) => {
    const person = personOf(request);
    const pages = await pagesOf(context, person);
    const errands = await openErrands(context, pages.wholes, person);
    const recent = await context.db
      .select()
      .from(held)
      .where(standing(context, person, held))
      .orderBy(desc(held.createdAt), desc(held.id))
      .limit(RECENT);
    response.json({
      errands: await withGiven(context, errands, person),
      colleagues: may(person.role, 'edit-pages') ? await colleaguesOf(context) : [],
      pages: await summaries(context, pages),
      recent: await presentAssets(context, recent, person),
      hanging: context.config.isDemo ? await readHanging(context.db) : null,
    });
  });
  route(router, 'put /desk/errands/{id}', mayEdit, async (request, response) => {
    const person = personOf(request);
    const open = await givableErrands(context, person);
    await giveErrand(context, open, { id: request.params.id, by: person, ...request.body });
    response.status(204).end();
  });
  route(router, 'delete /desk/errands/{id}', mayEdit, async (request, response) => {
    await takeErrandBack(context, request.params.id);
    response.status(204).end();
  });
  return router;
}
