import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import type { Person } from '#api/people.ts';
import { webSafe } from '#core/naming/names.ts';
import { writeAudit } from '../audit.ts';
import { clientGoneSignal } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { addJob, assertMayOrder, presentJob, readJob } from '../jobs/queue.ts';
import { newId } from '../new-id.ts';
import { assertMayGoOut } from '../pages/gate.ts';
import { readPage, type WholePage } from '../pages/store.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { keepNamesOut } from '../shelf/names-out.ts';
import { workFolder } from '../work-folder.ts';
import { oneFile } from './one-file.ts';
import { figureOf, figureZip, labelAlone, pieceAlone } from './piece-alone.ts';
import { TAKE_AWAY } from './take-away.ts';

export function deliverRoutes(context: Context): Router {
  const router = Router();
  route(router, 'post /pages/{id}/take-away', allowed('take-away'), async (request, response) => {
    const whole = await readPage(context, request.params.id, personOf(request));
    assertMayGoOut(whole, personOf(request));
    const title = webSafe(whole.doc.title) || 'page';
    await assertMayOrder(context, personOf(request).id);
    const id = await addJob(
      context,
      {
        id: newId(context, request),
        kind: TAKE_AWAY,
        title,
        input: { pageId: whole.row.id },
        personId: personOf(request).id,
      },
      new Date(),
    );
    response.status(202).json(presentJob(await readJob(context, id)));
  });

  route(router, 'get /pages/{id}/one-file', allowed('take-away'), async (request, response) => {
    const whole = await readPage(context, request.params.id, personOf(request));
    const html = await oneFile(context, whole, clientGoneSignal(response));
    const subject = whole.doc.title || 'Untitled page';
    await writeAudit(context.db, { person: personOf(request), what: 'code-seen', subject }, new Date());
    if (response.destroyed) return;
    // A file to be kept: what stands in it is not run on this origin.
    response
      .attachment(`${webSafe(whole.doc.title) || 'page'}.html`)
      .set('Content-Security-Policy', "default-src 'none'; sandbox")
      .type('html')
      .send(html);
  });

  route(router, 'get /assets/{id}/label.xmp', allowed('take-away'), async (request, response) => {
    const whole = await pieceAlone(context, request.params.id, request.query);
    const folder = await workFolder(context);
    try {
      const path = join(folder, 'label.xmp');
      await labelAlone(context, whole, path);
      response.attachment(`${whole.assets[0]?.stem ?? 'piece'}.xmp`).type('application/rdf+xml');
      await pipeline(createReadStream(path), response);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  route(router, 'get /assets/{id}/figure', allowed('take-away'), async (request, response) => {
    const whole = await pieceAlone(context, request.params.id, request.query);
    const figure = await figureOf(context, whole, request.query, clientGoneSignal(response));
    // Whoever sees the code may take it by hand: the names in it are kept from now on.
    await keepNamesOut(context, whole.assets, new Date());
    response.json(figure);
  });

  route(router, 'post /assets/{id}/figure/copied', allowed('take-away'), async (request, response) => {
    const whole = await pieceAlone(context, request.params.id, request.body);
    await tellTaken(context, whole, personOf(request), COPIED[request.body.as]);
    response.status(204).end();
  });

  route(router, 'get /assets/{id}/figure.zip', allowed('take-away'), async (request, response) => {
    const whole = await pieceAlone(context, request.params.id, request.query);
    const folder = await workFolder(context);
    try {
      const path = join(folder, 'figure.zip');
      await figureZip(context, whole, path);
      await tellTaken(context, whole, personOf(request), 'as a ZIP');
      response.attachment(`${whole.assets[0]?.stem ?? 'piece'}.zip`).type('zip');
      await pipeline(createReadStream(path), response);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });
  return router;
}

const COPIED = { code: 'as code', picture: 'with its picture' } as const;

/** Its files go out under their names, which are kept for it from then on. */
async function tellTaken(context: Context, whole: WholePage, person: Person, detail: string): Promise<void> {
  const now = new Date();
  await keepNamesOut(context, whole.assets, now);
  await writeAudit(context.db, { person, what: 'sent', subject: whole.row.title, detail }, now);
}
