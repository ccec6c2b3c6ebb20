import { inArray } from 'drizzle-orm';
import { Router } from 'express';
import type { PageSummary } from '#api/pages.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { teaserOf } from '#core/page/lead.ts';
import { stationsOf } from '#core/page/stations.ts';
import { styleSheet } from '#core/page/style-sheet.ts';
import { placementsOf } from '#core/page/walk.ts';
import { writeFragment } from '#core/page/write.ts';
import { sayFinding } from '#core/proof/say.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { cuts, people } from '../db/schema.ts';
import { placedAssets } from '../deliver/placed.ts';
import { tellSent } from '../deliver/take-away.ts';
import { versionOf } from '../if-match.ts';
import { listingPath, pagePath, signedAddress } from '../media/addresses.ts';
import { newId } from '../new-id.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { keepNamesOut } from '../shelf/names-out.ts';
import { thumbAddress } from '../shelf/present.ts';
import { assertMayGoOut, markedUnfinished, whatStops } from './gate.ts';
import { firstLoad, outgoing, proofOf } from './proof.ts';
import { sitAt } from './sittings.ts';
import {
  type AllPages,
  countPages,
  createPage,
  pageAddresses,
  presentPage,
  readPage,
  readPages,
  savePage,
  type WholePage,
} from './store.ts';
import { beginTranslation, presentSisters, saveTranslated } from './translations.ts';
import { putOnTray, takeOffTray } from './tray.ts';
import { listVersions, nameVersion, readVersion } from './versions.ts';

export function pageRoutes(context: Context): Router {
  const router = Router();
  // Whoever only hands pieces in has no business with what is written round them.
  const mayRead = allowed('edit-pages');

  route(router, 'get /pages', mayRead, async (request, response) => {
    const { words = '' } = request.query;
    const found = await readPages(context, personOf(request), { words });
    response.json({
      pages: await summaries(context, found),
      count: await countPages(context, words),
    });
  });

  route(router, 'get /pages/addresses', mayRead, async (_request, response) => {
    response.json(await pageAddresses(context));
  });

  route(router, 'post /pages', allowed('edit-pages'), async (request, response) => {
    const [wish, person] = [request.body, personOf(request)];
    const id = await createPage(context, wish, person, new Date(), newId(context, request));
    response.status(201).json({ id });
  });

  route(router, 'get /pages/{id}', mayRead, async (request, response) => {
    response.json(
      await presentPage(
        context,
        await readPage(context, request.params.id, personOf(request)),
        personOf(request),
      ),
    );
  });

  route(router, 'put /pages/{id}', allowed('edit-pages'), async (request, response) => {
    const { doc } = request.body;
    const id = request.params.id;
    response.json(await savePage(context, id, versionOf(request), doc, personOf(request), new Date()));
  });

  route(router, 'post /pages/{id}/tray', allowed('edit-pages'), async (request, response) => {
    const { add, remove, wantId } = request.body;
    const [id, person, now] = [request.params.id, personOf(request), new Date()];
    if (add.length > 0) await putOnTray(context, id, add, wantId, person.id, now);
    if (remove.length > 0) await takeOffTray(context, id, remove, person.id, now);
    response.status(204).end();
  });

  route(router, 'get /pages/{id}/versions', mayRead, async (request, response) => {
    response.json(await listVersions(context, request.params.id));
  });

  route(router, 'post /pages/{id}/versions', allowed('edit-pages'), async (request, response) => {
    const named = {
      id: newId(context, request),
      pageId: request.params.id,
      version: versionOf(request),
      personId: personOf(request).id,
      name: request.body.name,
    };
    response.status(201).json(await nameVersion(context, named, new Date()));
  });

  route(router, 'get /pages/{id}/versions/{versionId}', mayRead, async (request, response) => {
    const { id, versionId } = request.params;
    response.json(await readVersion(context, id, versionId, personOf(request)));
  });

  route(router, 'get /pages/{id}/sisters', mayRead, async (request, response) => {
    response.json(await presentSisters(context, request.params.id, personOf(request)));
  });

  route(router, 'post /pages/{id}/translations', allowed('edit-pages'), async (request, response) => {
    const [id, pageId, personId] = [newId(context, request), request.params.id, personOf(request).id];
    await beginTranslation(context, { ...request.body, id, pageId, personId }, new Date());
    response.status(201).json({ id });
  });

  route(router, 'put /pages/{id}/translated', allowed('edit-pages'), async (request, response) => {
    const { base } = request.body;
    const version = await saveTranslated(context, request.params.id, versionOf(request), base);
    response.json({ version });
  });

  route(router, 'post /pages/{id}/sittings', mayRead, async (request, response) => {
    const { id } = request.params;
    response.json(await sitAt(context, id, request.body, personOf(request).id, new Date()));
  });

  route(router, 'get /pages/{id}/findings', mayRead, async (request, response) => {
    response.json(proofOf(await readPage(context, request.params.id, personOf(request))));
  });

  route(router, 'get /pages/{id}/preview', mayRead, async (request, response) => {
    const whole = await readPage(context, request.params.id, personOf(request));
    const weight = await firstLoadBytes(context, whole);
    response.json({
      address: signedAddress(context, pagePath(whole.row, personOf(request).id), 'look'),
      listing: teaserOf(whole.doc)
        ? signedAddress(context, listingPath(whole.row, personOf(request).id), 'look')
        : null,
      version: whole.row.version,
      ...weight,
    });
  });

  route(router, 'get /pages/{id}/fragment', allowed('take-away'), async (request, response) => {
    const whole = await readPage(context, request.params.id, personOf(request));
    const { unfinished, files, inline, untitled } = request.query;
    const stops = whatStops(whole);
    if (!unfinished) assertMayGoOut(whole, personOf(request));
    const html = writeFragment(whole.doc, {
      ...outgoing(whole),
      addressOf: (cut) => `${files}${cut.fileName}`,
      fileOf: (fileName) => `${files}${fileName}`,
      isInline: inline === 'yes',
      withoutTitle: untitled === 'yes',
    });
    const person = personOf(request);
    if (stops.length === 0) {
      await keepNamesOut(context, placedAssets(whole), new Date());
      await tellSent(context, whole, person.id, 'as code');
    } else {
      const subject = whole.doc.title || 'Untitled page';
      await writeAudit(context.db, { person, what: 'code-seen', subject }, new Date());
    }
    response.json({
      html: stops.length === 0 ? html : markedUnfinished(html, stops),
      css: styleSheet(whole.rules, whole.doc, whole.pieces),
      stops: stops.map((stop) => sayFinding(stop).sentence),
    });
  });
  return router;
}

/** Pages as lists show them. */
export async function summaries(context: Context, { wholes, broken }: AllPages): Promise<PageSummary[]> {
  const ids = [...new Set([...wholes, ...broken].map(({ row }) => row.updatedBy))];
  const names =
    ids.length === 0
      ? []
      : await context.db
          .select({ id: people.id, name: people.name })
          .from(people)
          .where(inArray(people.id, ids));
  const nameOf = (id: string) => names.find((person) => person.id === id)?.name ?? 'Somebody';
  const unread = broken.map(({ row, fault }) => ({
    id: row.id,
    title: row.title,
    targetName: '',
    language: null,
    version: row.version,
    due: row.due,
    updatedAt: row.updatedAt.toISOString(),
    updatedBy: nameOf(row.updatedBy),
    stations: [],
    thumb: null,
    stops: 0,
    fault,
  }));
  const read = wholes.map((whole) => ({
    id: whole.row.id,
    title: whole.row.title,
    targetName: whole.rules.name,
    language: whole.doc.language ?? null,
    version: whole.row.version,
    due: whole.row.due,
    updatedAt: whole.row.updatedAt.toISOString(),
    updatedBy: nameOf(whole.row.updatedBy),
    stations: stationsOf(whole.doc, whole.pieces, whole.rules, new Date()).map(({ id, name, done, of }) => ({
      id,
      name,
      done,
      of,
    })),
    thumb: thumbOf(context, whole),
    stops: whatStops(whole).length,
    fault: null,
  }));
  return [...unread, ...read];
}

function thumbOf(context: Context, whole: WholePage): string | null {
  const first = placementsOf(whole.doc)[0]?.asset ?? whole.doc.tray[0];
  const row = whole.assets.find((asset) => asset.id === first);
  return row ? thumbAddress(context, row) : null;
}

/** What the widest proof loads at first: measured where all its cuts are made, else said to be a guess. */
async function firstLoadBytes(context: Context, whole: WholePage) {
  const wanted = firstLoad(whole, Math.max(...whole.rules.proofWidths));
  const ids = [...new Set(wanted.map(({ assetId }) => assetId))];
  const made = ids.length === 0 ? [] : await context.db.select().from(cuts).where(inArray(cuts.assetId, ids));
  const keyOf = (...parts: readonly (string | number)[]) => parts.join(' ');
  const bytesOf = new Map(
    made.map((cut) => [keyOf(cut.assetId, cut.recipe, cut.widthPx, cut.format, cut.quality), cut.bytes]),
  );
  const sizes = wanted.map(({ assetId, recipe, width, format, quality }) =>
    bytesOf.get(keyOf(assetId, recipeKey(recipe), width, format, quality)),
  );
  const known = sizes.filter((bytes) => bytes !== undefined);
  return {
    firstLoadBytes: known.reduce((sum, bytes) => sum + bytes, 0),
    isMeasured: known.length === sizes.length,
  };
}
