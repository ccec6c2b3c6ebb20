import { and, desc, eq } from 'drizzle-orm';
import { Router } from 'express';
import { FoldSchema, KeepApartSchema, ReplaceSchema, TakeBackSchema } from '#api/assets.ts';
import type { Person } from '#api/people.ts';
import type { Context } from '../context.ts';
import { pins } from '../db/schema.ts';
import { allowed, personOf } from '../people/guard.ts';
import { checked } from '../problem.ts';
import { keepApart, lookalikesOf, noLongerApart } from './lookalikes.ts';
import { type AssetRow, presentAssets } from './present.ts';
import { provenanceOf } from './provenance.ts';
import { anyAsset, bringBack, fold, throwAway } from './put-away.ts';
import { pagesWithOwnWords, replaceEverywhere, takeReplacementBack } from './replace.ts';

/** What becomes of pieces besides their labels: pinned, folded, replaced, thrown away and brought back. */
export function putAwayRoutes(context: Context): Router {
  const router = Router();
  const answer = async (row: AssetRow, person: Person) => {
    const [asset] = await presentAssets(context, [row], person);
    return asset;
  };
  const idOf = (params: Readonly<Record<string, unknown>>) => String(params.id);

  router.get('/assets/:id/provenance', async (request, response) => {
    response.json(await provenanceOf(context, idOf(request.params)));
  });

  router.get('/assets/:id/lookalikes', async (request, response) => {
    const alike = await lookalikesOf(context, idOf(request.params));
    const shown = await presentAssets(
      context,
      alike.map(({ row }) => row),
      personOf(request),
    );
    response.json(shown.map((asset, at) => ({ asset, bitsApart: alike[at]?.bitsApart ?? 0 })));
  });

  router.post('/assets/:id/keep-apart', allowed('say-rights'), async (request, response) => {
    const { other } = checked(KeepApartSchema, request.body);
    await keepApart(context, idOf(request.params), other, personOf(request).id, new Date());
    response.status(204).end();
  });

  router.delete('/assets/:id/keep-apart/:other', allowed('say-rights'), async (request, response) => {
    await noLongerApart(context, idOf(request.params), String(request.params.other));
    response.status(204).end();
  });

  router.post('/assets/:id/fold', allowed('say-rights'), async (request, response) => {
    const { into } = checked(FoldSchema, request.body);
    const person = personOf(request);
    response.json(await answer(await fold(context, idOf(request.params), into, person, new Date()), person));
  });

  router.get('/assets/:id/own-words', allowed('edit-pages'), async (request, response) => {
    response.json(await pagesWithOwnWords(context, idOf(request.params)));
  });

  router.post('/assets/:id/replace', allowed('edit-pages'), async (request, response) => {
    const { by } = checked(ReplaceSchema, request.body);
    const now = new Date();
    const { pages, at } = await replaceEverywhere(context, idOf(request.params), by, personOf(request), now);
    response.json({ pages, at: at.toISOString() });
  });

  router.post('/assets/:id/replace/take-back', allowed('edit-pages'), async (request, response) => {
    const { at } = checked(TakeBackSchema, request.body);
    const person = personOf(request);
    const pages = await takeReplacementBack(context, idOf(request.params), new Date(at), person, new Date());
    response.json({ pages, at });
  });

  router.delete('/assets/:id', async (request, response) => {
    const person = personOf(request);
    response.json(await answer(await throwAway(context, idOf(request.params), person, new Date()), person));
  });

  router.post('/assets/:id/bring-back', async (request, response) => {
    const person = personOf(request);
    response.json(await answer(await bringBack(context, idOf(request.params), person, new Date()), person));
  });

  router.get('/pins', async (request, response) => {
    const rows = await context.db
      .select({ id: pins.assetId })
      .from(pins)
      .where(eq(pins.personId, personOf(request).id))
      .orderBy(desc(pins.at));
    response.json(rows.map(({ id }) => id));
  });

  router.put('/pins/:id', async (request, response) => {
    const { id } = await anyAsset(context, idOf(request.params));
    await context.db
      .insert(pins)
      .ignore()
      .values({ personId: personOf(request).id, assetId: id, at: new Date() });
    response.status(204).end();
  });

  router.delete('/pins/:id', async (request, response) => {
    await context.db
      .delete(pins)
      .where(and(eq(pins.personId, personOf(request).id), eq(pins.assetId, idOf(request.params))));
    response.status(204).end();
  });
  return router;
}
