import { asc } from 'drizzle-orm';
import { Router } from 'express';
import { strictest } from '#core/page/target.ts';
import { dayIn } from '#core/rights/terms.ts';
import type { Context } from '../context.ts';
import { targets } from '../db/schema.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { findAsset } from '../shelf/change.ts';
import { presentAssets } from '../shelf/present.ts';
import { historyOf } from './history.ts';
import { askLedger, pagesOf } from './ledger.ts';
import { judgedUses } from './uses.ts';

export function rightsRoutes(context: Context): Router {
  const router = Router();
  const maySay = allowed('say-rights');

  route(router, 'get /rights', maySay, async (request, response) => {
    const answer = await askLedger(context, request.query, await today(context, new Date()));
    const shown = await presentAssets(context, answer.rows, personOf(request));
    const standsOn = await pagesOf(
      context,
      answer.rows.map(({ id }) => id),
    );
    response.json({
      rows: shown.map((asset) => ({ asset, pages: standsOn.get(asset.id) ?? [] })),
      found: answer.found,
      cursor: answer.cursor,
    });
  });

  route(router, 'get /assets/{id}/uses', maySay, async (request, response) => {
    const { id } = await findAsset(context, request.params.id);
    response.json(await judgedUses(context, id, new Date()));
  });

  route(router, 'get /assets/{id}/history', maySay, async (request, response) => {
    const { id } = await findAsset(context, request.params.id);
    response.json(await historyOf(context, id));
  });
  return router;
}

/** The day of the house: that of the target for which pieces are judged where no page says which. */
async function today({ db }: Context, now: Date): Promise<string> {
  const rules = strictest(await db.select().from(targets).orderBy(asc(targets.id)))?.rules;
  return dayIn(rules?.timeZone ?? 'UTC', now);
}
