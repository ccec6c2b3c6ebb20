import { Router } from 'express';
import type { Context } from '../context.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { listFolders, makeFolder, moveFolder, removeFolder } from './folders.ts';

export function folderRoutes(context: Context): Router {
  const router = Router();
  const mayChange = allowed('say-rights');

  route(router, 'get /folders', async (request, response) => {
    response.json(await listFolders(context, personOf(request)));
  });

  route(router, 'post /folders', mayChange, async (request, response) => {
    const { path } = request.body;
    const made = await makeFolder(context, path, personOf(request).id, new Date());
    response.status(201).json({ path: made });
  });

  route(router, 'post /folders/move', mayChange, async (request, response) => {
    const { from, to } = request.body;
    response.json({ path: await moveFolder(context, from, to, personOf(request).id, new Date()) });
  });

  route(router, 'post /folders/remove', mayChange, async (request, response) => {
    const { path } = request.body;
    await removeFolder(context, path, personOf(request).id, new Date());
    response.status(204).end();
  });
  return router;
}
