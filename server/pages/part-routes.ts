import { Router } from 'express';
import type { Context } from '../context.ts';
import { versionOf } from '../if-match.ts';
import { newId } from '../new-id.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { changePart, keepPart, listParts, readPart } from './parts.ts';

export function partRoutes(context: Context): Router {
  const router = Router();
  const mayEdit = allowed('edit-pages');

  route(router, 'get /parts', mayEdit, async (_request, response) => {
    response.json(await listParts(context));
  });

  route(router, 'post /parts', mayEdit, async (request, response) => {
    const id = newId(context, request);
    await keepPart(context, id, request.body, personOf(request).id, new Date());
    response.status(201).json({ id });
  });

  route(router, 'get /parts/{id}', mayEdit, async (request, response) => {
    response.json(await readPart(context, request.params.id, personOf(request)));
  });

  route(router, 'put /parts/{id}', mayEdit, async (request, response) => {
    const { id } = request.params;
    const person = personOf(request);
    response.json(await changePart(context, id, versionOf(request), request.body, person.id, new Date()));
  });
  return router;
}
