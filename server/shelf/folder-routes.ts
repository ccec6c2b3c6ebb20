import { Router } from 'express';
import { FolderSchema, MoveFolderSchema } from '#api/assets.ts';
import type { Context } from '../context.ts';
import { allowed, personOf } from '../people/guard.ts';
import { checked } from '../problem.ts';
import { listFolders, makeFolder, moveFolder, removeFolder } from './folders.ts';

export function folderRoutes(context: Context): Router {
  const router = Router();
  const mayChange = allowed('say-rights');

  router.get('/folders', async (_request, response) => {
    response.json(await listFolders(context));
  });

  router.post('/folders', mayChange, async (request, response) => {
    const { path } = checked(FolderSchema, request.body);
    const made = await makeFolder(context, path, personOf(request).id, new Date());
    response.status(201).json({ path: made });
  });

  router.post('/folders/move', mayChange, async (request, response) => {
    const { from, to } = checked(MoveFolderSchema, request.body);
    response.json({ path: await moveFolder(context, from, to, personOf(request).id, new Date()) });
  });

  router.post('/folders/remove', mayChange, async (request, response) => {
    const { path } = checked(FolderSchema, request.body);
    await removeFolder(context, path, personOf(request).id, new Date());
    response.status(204).end();
  });
  return router;
}
