import { and, desc, eq } from 'drizzle-orm';
import { Router } from 'express';

import type { Context } from '../context.ts';
import { pins } from '../db/schema.ts';
import { allowed, personOf } from '../people/guard.ts';
import { answerWithProgress } from '../progress-lines.ts';
import { route } from '../route.ts';
import { keepApart, lookalikesOf, noLongerApart } from './lookalikes.ts';
import { presentAsset, presentAssets } from './present.ts';
import { provenanceOf } from './provenance.ts';
import { anyAsset, bringBack, fold, throwAway } from './put-away.ts';
import { pagesWithOwnWords, replaceEverywhere, takeReplacementBack } from './replace.ts';
import { seen } from './seen.ts';

/** What becomes of pieces besides their labels: pinned, folded, replaced, thrown away and brought back. */
export function putAwayRoutes(context: Context): Router {
  const router = Router();

  route(router, 'get /assets/{id}/provenance', async (request, response) => {
    response.json(await provenanceOf(context, request.params.id));
  });

  route(router, 'get /assets/{id}/lookalikes', async (request, response) => {
    const alike = await lookalikesOf(context, request.params.id, personOf(request));
    const shown = await presentAssets(
      context,
      alike.map(({ row }) => row),
      personOf(request),
    );
    const apart = new Map(alike.map(({ row, bitsApart }) => [row.id, bitsApart]));
    response.json(shown.map((asset) => ({ asset, bitsApart: apart.get(asset.id) ?? 0 })));
  });

  route(router, 'post /assets/{id}/keep-apart', allowed('say-rights'), async (request, response) => {
    const { other } = request.body;
    await keepApart(context, request.params.id, other, personOf(request).id, new Date());
    response.status(204).end();
  });

  route(
    router,
    'delete /assets/{id}/keep-apart/{other}',
    allowed('say-rights'),
    async (request, response) => {
      await noLongerApart(context, request.params.id, request.params.other);
      response.status(204).end();
    },
  );

  route(router, 'post /assets/{id}/fold', allowed('say-rights'), async (request, response) => {
    const { into } = request.body;
    const person = personOf(request);
    response.json(
      await presentAsset(context, await fold(context, request.params.id, into, person, new Date()), person),
    );
  });

  route(router, 'get /assets/{id}/own-words', allowed('edit-pages'), async (request, response) => {
    response.json(await pagesWithOwnWords(context, request.params.id));
  });

  route(router, 'post /assets/{id}/replace', allowed('edit-pages'), async (request, response) => {
    const { by } = request.body;
    const now = new Date();
    seen(await anyAsset(context, by), personOf(request));
    await answerWithProgress(request, response, async (onStep) => {
      const person = personOf(request);
      const { pages, at } = await replaceEverywhere(context, request.params.id, by, person, now, onStep);
      return { pages, at: at.toISOString() };
    });
  });

  route(router, 'post /assets/{id}/replace/take-back', allowed('edit-pages'), async (request, response) => {
    const { at } = request.body;
    const person = personOf(request);
    const pages = await takeReplacementBack(context, request.params.id, new Date(at), person, new Date());
    response.json({ pages, at });
  });

  route(router, 'delete /assets/{id}', async (request, response) => {
    const person = personOf(request);
    response.json(
      await presentAsset(context, await throwAway(context, request.params.id, person, new Date()), person),
    );
  });

  route(router, 'post /assets/{id}/bring-back', async (request, response) => {
    const person = personOf(request);
    response.json(
      await presentAsset(context, await bringBack(context, request.params.id, person, new Date()), person),
    );
  });

  route(router, 'get /pins', async (request, response) => {
    const rows = await context.db
      .select({ id: pins.assetId })
      .from(pins)
      .where(eq(pins.personId, personOf(request).id))
      .orderBy(desc(pins.at));
    response.json(rows.map(({ id }) => id));
  });

  route(router, 'put /pins/{id}', async (request, response) => {
    const { id } = seen(await anyAsset(context, request.params.id), personOf(request));
    await context.db
      .insert(pins)
      .ignore()
      .values({ personId: personOf(request).id, assetId: id, at: new Date() });
    response.status(204).end();
  });

  route(router, 'delete /pins/{id}', async (request, response) => {
    await context.db
      .delete(pins)
      .where(and(eq(pins.personId, personOf(request).id), eq(pins.assetId, request.params.id)));
    response.status(204).end();
  });
  return router;
}
