import { sql } from 'drizzle-orm';
import { Router } from 'express';
import type { Context } from './context.ts';
import { originalKey } from './storage/storage.ts';

const LIMIT_MILLIS = 3000;
/** Asked for to hear whether the store answers; nothing is ever kept under it. */
const NOTHING = originalKey('0'.repeat(64));

/**
 * For whoever runs it and for what balances between several: `/healthz` says that this process answers at all, `/readyz`
 * that it can work: its database and its store of files answer, and it is not about to end. Neither tells more.
 */
export function healthRoutes(context: Context): Router {
  const router = Router();
  router.use((_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  router.get('/healthz', (_request, response) => {
    response.json({ ok: true });
  });
  router.get('/readyz', async (_request, response) => {
    const [database, files] = await Promise.all([
      answers(() => context.db.execute(sql`select 1`)),
      answers(() => context.storage.has(NOTHING)),
    ]);
    const ending = context.ending.aborted;
    const ok = database && files && !ending;
    response.status(ok ? 200 : 503).json({ ok, database, files, ending });
  });
  return router;
}

async function answers(ask: () => Promise<unknown>): Promise<boolean> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<false>((resolve) => {
    timer = setTimeout(() => resolve(false), LIMIT_MILLIS);
  });
  const asked = ask().then(
    () => true,
    () => false,
  );
  const isThere = await Promise.race([asked, late]);
  clearTimeout(timer);
  return isThere;
}
