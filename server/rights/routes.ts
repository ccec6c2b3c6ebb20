import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import type { Person } from '#api/people.ts';
import { writeAudit } from '../audit.ts';
import { withClientAbort } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { versionOf } from '../if-match.ts';
import { newId } from '../new-id.ts';
import { allowed, personOf } from '../people/guard.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { route } from '../route.ts';
import { today } from '../rules/today.ts';
import { findAsset } from '../shelf/change.ts';
import { presentAssets } from '../shelf/present.ts';
import { putInPlace } from './buying.ts';
import { keepLabel, openDifferences } from './differences.ts';
import { historyOf } from './history.ts';
import { readHouseLicences, removeHouseLicence, saveHouseLicence } from './house-licences.ts';
import { askLedger, countLedger, pagesOf } from './ledger.ts';
import { changeMany, ledgerFile, lookUp } from './ledger-file.ts';
import {
  beginPurchase,
  goOnBuying,
  offersFor,
  presentPurchases,
  readPurchase,
  recentPurchases,
} from './purchases.ts';
import { saveLimits, spendingOf } from './spending.ts';
import { judgedUses } from './uses.ts';
import { whereUsed } from './where-used.ts';

export function rightsRoutes(context: Context): Router {
  const router = Router();
  const maySay = allowed('say-rights');

  route(router, 'get /rights', maySay, async (request, response) => {
    const answer = await askLedger(
      context,
      request.query,
      await today(context, new Date()),
      personOf(request),
    );
    const shown = await presentAssets(context, answer.rows, personOf(request));
    const standsOn = await pagesOf(
      context,
      answer.rows.map(({ id }) => id),
    );
    response.json({
      rows: shown.map((asset) => ({ asset, pages: standsOn.get(asset.id) ?? [] })),
      cursor: answer.cursor,
    });
  });

  route(router, 'get /rights/count', maySay, async (request, response) => {
    const day = await today(context, new Date());
    response.json({ found: await countLedger(context, request.query, day, personOf(request)) });
  });

  route(router, 'get /where-used', maySay, async (request, response) => {
    response.json(await whereUsed(context, request.query, personOf(request)));
  });

  route(router, 'get /licences', async (_request, response) => {
    response.json([...(await readHouseLicences(context.db))]);
  });

  route(router, 'put /licences/{id}', allowed('decide-rights'), async (request, response) => {
    const [licence, person] = [{ ...request.body, id: request.params.id }, personOf(request)];
    response.json(await saveHouseLicence(context, licence, versionOf(request), person, new Date()));
  });

  route(router, 'delete /licences/{id}', allowed('decide-rights'), async (request, response) => {
    await removeHouseLicence(context, request.params.id, versionOf(request), personOf(request), new Date());
    response.status(204).end();
  });

  for (const form of ['csv', 'json'] as const)
    route(router, `get /rights.${form}`, maySay, async (request, response) => {
      const now = new Date();
      const day = await today(context, now);
      const what = 'ledger-taken' as const;
      await writeAudit(context.db, { person: personOf(request), what, subject: `as ${form}` }, now);
      response.attachment(`placard-rights-${day}.${form}`).type(form);
      const { cursor: _, ...question } = request.query;
      await pipeline(ledgerFile(context, question, day, form, personOf(request)), response);
    });

  route(router, 'post /rights/lookups', maySay, async (request, response) => {
    response.json(await lookUp(context, request.body, personOf(request)));
  });

  route(router, 'post /rights/changes', maySay, async (request, response) => {
    response.json(await changeMany(context, request.body.rows, personOf(request), new Date()));
  });

  route(router, 'get /assets/{id}/uses', maySay, async (request, response) => {
    const { id } = await findAsset(context, request.params.id);
    response.json(await judgedUses(context, id, new Date()));
  });

  route(router, 'get /assets/{id}/history', maySay, async (request, response) => {
    const { id } = await findAsset(context, request.params.id);
    response.json(await historyOf(context, id));
  });

  route(router, 'get /assets/{id}/differences', maySay, async (request, response) => {
    response.json(await openDifferences(context, await findAsset(context, request.params.id)));
  });

  route(router, 'put /assets/{id}/differences', maySay, async (request, response) => {
    const { isKept, ...difference } = request.body;
    const { id } = await findAsset(context, request.params.id);
    await keepLabel(context, id, difference, isKept ? personOf(request).id : null);
    response.status(204).end();
  });

  route(router, 'get /assets/{id}/offers', maySay, async (request, response) => {
    const { id } = request.params;
    response.json(
      await withClientAbort(context, request, response, (signal) => offersFor(context, id, signal)),
    );
  });

  const presentOne = async (id: string, person: Person) => {
    const [purchase] = await presentPurchases(context, [await readPurchase(context, id)], person);
    if (!purchase) throw notFound('This purchase');
    return purchase;
  };

  route(router, 'get /purchases', maySay, async (request, response) => {
    response.json(await recentPurchases(context, personOf(request), new Date()));
  });

  route(router, 'post /purchases', maySay, async (request, response) => {
    const [wish, person, id] = [request.body, personOf(request), newId(context, request)];
    await withClientAbort(context, request, response, (signal) =>
      beginPurchase(context, wish, person, new Date(), id, signal),
    );
    response.status(202).json(await presentOne(id, person));
  });

  route(router, 'get /purchases/{id}', maySay, async (request, response) => {
    response.json(await presentOne(request.params.id, personOf(request)));
  });

  route(router, 'post /purchases/{id}/go-on', maySay, async (request, response) => {
    await goOnBuying(context, request.params.id);
    response.status(202).json(await presentOne(request.params.id, personOf(request)));
  });

  route(router, 'post /purchases/{id}/put-in-place', allowed('edit-pages'), async (request, response) => {
    const [row, person] = [await readPurchase(context, request.params.id), personOf(request)];
    if (!row.originalId) throw new HttpProblem(409, 'The original has not arrived yet.');
    await putInPlace(context, row, row.originalId, person, new Date());
    response.json(await presentOne(row.id, person));
  });

  route(router, 'get /spending', maySay, async (request, response) => {
    response.json(await spendingOf(context.db, personOf(request), new Date()));
  });

  route(router, 'put /spending', allowed('set-rules'), async (request, response) => {
    await saveLimits(context, request.body, personOf(request), new Date());
    response.json(await spendingOf(context.db, personOf(request), new Date()));
  });
  return router;
}
