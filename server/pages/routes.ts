import { and, eq, inArray } from 'drizzle-orm';
import { Router } from 'express';
import { ChangeTraySchema, NewPageSchema, type PageSummary, SavePageSchema } from '#api/pages.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { placementsOf } from '#core/page/model.ts';
import { stationsOf } from '#core/page/stations.ts';
import { styleSheet } from '#core/page/style-sheet.ts';
import { writeFragment } from '#core/page/write.ts';
import type { Context } from '../context.ts';
import { cuts, people } from '../db/schema.ts';
import { versionOf } from '../if-match.ts';
import { pagePath, signedAddress } from '../media/addresses.ts';
import { allowed, personOf } from '../people/guard.ts';
import { checked } from '../problem.ts';
import { thumbAddress } from '../shelf/present.ts';
import { firstLoad, outgoing, proofOf } from './proof.ts';
import { createPage, presentPage, readPage, readPages, savePage, type WholePage } from './store.ts';
import { putOnTray, takeOffTray } from './tray.ts';

export function pageRoutes(context: Context): Router {
  const router = Router();

  router.get('/pages', async (_request, response) => {
    response.json(await summaries(context, await readPages(context)));
  });

  router.post('/pages', allowed('edit-pages'), async (request, response) => {
    const id = await createPage(context, checked(NewPageSchema, request.body), personOf(request), new Date());
    response.status(201).json({ id });
  });

  router.get('/pages/:id', async (request, response) => {
    response.json(await presentPage(context, await readPage(context, request.params.id)));
  });

  router.put('/pages/:id', allowed('edit-pages'), async (request, response) => {
    const { doc } = checked(SavePageSchema, request.body);
    const id = String(request.params.id);
    response.json(await savePage(context, id, versionOf(request), doc, personOf(request), new Date()));
  });

  router.post('/pages/:id/tray', allowed('edit-pages'), async (request, response) => {
    const { add, remove, wantId } = checked(ChangeTraySchema, request.body);
    const [id, person, now] = [String(request.params.id), personOf(request), new Date()];
    if (add.length > 0) await putOnTray(context, id, add, wantId, person.id, now);
    if (remove.length > 0) await takeOffTray(context, id, remove, person.id, now);
    response.status(204).end();
  });

  router.get('/pages/:id/findings', async (request, response) => {
    response.json(proofOf(await readPage(context, request.params.id)));
  });

  router.get('/pages/:id/preview', async (request, response) => {
    const whole = await readPage(context, request.params.id);
    const weight = await firstLoadBytes(context, whole);
    response.json({
      address: signedAddress(context, pagePath(whole.row.id, whole.row.version), 'look'),
      version: whole.row.version,
      ...weight,
    });
  });

  router.get('/pages/:id/fragment', allowed('take-away'), async (request, response) => {
    const whole = await readPage(context, String(request.params.id));
    response.json({
      html: writeFragment(whole.doc, outgoing(whole)),
      css: styleSheet(whole.rules, whole.doc, whole.pieces),
    });
  });
  return router;
}

/** Pages as lists show them. */
export async function summaries(context: Context, wholes: readonly WholePage[]): Promise<PageSummary[]> {
  const ids = [...new Set(wholes.map((whole) => whole.row.updatedBy))];
  const names =
    ids.length === 0
      ? []
      : await context.db
          .select({ id: people.id, name: people.name })
          .from(people)
          .where(inArray(people.id, ids));
  return wholes.map((whole) => ({
    id: whole.row.id,
    title: whole.row.title,
    targetName: whole.rules.name,
    version: whole.row.version,
    due: whole.row.due,
    updatedAt: whole.row.updatedAt.toISOString(),
    updatedBy: names.find((person) => person.id === whole.row.updatedBy)?.name ?? 'Somebody',
    stations: stationsOf(whole.doc, whole.pieces, whole.rules).map(({ id, name, done, of }) => ({
      id,
      name,
      done,
      of,
    })),
    thumb: thumbOf(context, whole),
    stops: proofOf(whole).filter((finding) => finding.severity === 'stops').length,
  }));
}

function thumbOf(context: Context, whole: WholePage): string | null {
  const first = placementsOf(whole.doc)[0]?.asset ?? whole.doc.tray[0];
  const row = whole.assets.find((asset) => asset.id === first);
  return row ? thumbAddress(context, row) : null;
}

/** What the widest proof loads at first: measured where all its cuts are made, else said to be a guess. */
async function firstLoadBytes(context: Context, whole: WholePage) {
  const wanted = firstLoad(whole, Math.max(...whole.rules.proofWidths));
  const sizes = await Promise.all(
    wanted.map(async ({ assetId, recipe, width, format, quality }) => {
      const [row] = await context.db
        .select({ bytes: cuts.bytes })
        .from(cuts)
        .where(
          and(
            eq(cuts.assetId, assetId),
            eq(cuts.recipe, recipeKey(recipe)),
            eq(cuts.widthPx, width),
            eq(cuts.format, format),
            eq(cuts.quality, quality),
          ),
        );
      return row?.bytes;
    }),
  );
  const known = sizes.filter((bytes) => bytes !== undefined);
  return {
    firstLoadBytes: known.reduce((sum, bytes) => sum + bytes, 0),
    isMeasured: known.length === sizes.length,
  };
}
