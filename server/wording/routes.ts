import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { Router } from 'express';
import { mayChangePiece } from '#api/people.ts';
import type { Context } from '../context.ts';
import { assets, proposals } from '../db/schema.ts';
import { personOf } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { route } from '../route.ts';
import { findAsset } from '../shelf/change.ts';
import { readWording } from './wording.ts';

export function wordingRoutes(context: Context): Router {
  const router = Router();

  route(router, 'get /wording', async (request, response) => {
    response.json(await readWording(context, request.query, personOf(request), new Date()));
  });

  route(router, 'post /assets/{id}/proposals', async (request, response) => {
    const [row, person, at] = [await findAsset(context, request.params.id), personOf(request), new Date()];
    const { alt, extendedDescription } = request.body;
    if (alt.kind === 'unsaid') {
      await context.db
        .delete(proposals)
        .where(and(eq(proposals.assetId, row.id), eq(proposals.personId, person.id)));
    } else
      await context.db
        .insert(proposals)
        .values({ id: randomUUID(), assetId: row.id, personId: person.id, alt, extendedDescription, at })
        .onDuplicateKeyUpdate({ set: { alt, extendedDescription, at } });
    response.status(204).end();
  });

  route(router, 'delete /proposals/{id}', async (request, response) => {
    const person = personOf(request);
    const [found] = await context.db
      .select({ personId: proposals.personId, createdBy: assets.createdBy })
      .from(proposals)
      .innerJoin(assets, eq(assets.id, proposals.assetId))
      .where(eq(proposals.id, request.params.id));
    if (found && found.personId !== person.id && !mayChangePiece(person, found.createdBy))
      throw new HttpProblem(403, 'A proposal is taken or turned down by those who may change the piece.');
    await context.db.delete(proposals).where(eq(proposals.id, request.params.id));
    response.status(204).end();
  });
  return router;
}
