import { Router } from 'express';
import type { Context } from '../context.ts';
import { allowed } from '../people/guard.ts';
import { route } from '../route.ts';
import { readReport } from './today.ts';

export function reportRoutes(context: Context): Router {
  const router = Router();
  route(router, 'get /report', allowed('set-rules'), async (_request, response) => {
    response.json(await readReport(context, new Date()));
  });
  return router;
}
