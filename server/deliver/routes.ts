import { Router } from 'express';
import { webSafe } from '#core/naming/names.ts';
import { writeAudit } from '../audit.ts';
import { clientGoneSignal } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { addJob, assertMayOrder, presentJob, readJob } from '../jobs/queue.ts';
import { newId } from '../new-id.ts';
import { assertMayGoOut } from '../pages/gate.ts';
import { readPage } from '../pages/store.ts';
import { allowed, personOf } from '../people/guard.ts';
import { route } from '../route.ts';
import { oneFile } from './one-file.ts';
import { TAKE_AWAY } from './take-away.ts';

export function deliverRoutes(context: Context): Router {
  const router = Router();
  route(router, 'post /pages/{id}/take-away', allowed('take-away'), async (request, response) => {
    const whole = await readPage(context, request.params.id);
    assertMayGoOut(whole);
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
    const whole = await readPage(context, request.params.id);
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
  return router;
}
