import { join } from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { eq } from 'drizzle-orm';
import { Router } from 'express';
import { ArrivalSchema } from '#api/assets.ts';
import { sayBytes } from '#core/media/weight.ts';
import { folderPath } from '#core/naming/folders.ts';
import type { Context } from '../context.ts';
import { arrivals, assets } from '../db/schema.ts';
import { personOf } from '../people/guard.ts';
import { checked, notFound, Refusal } from '../problem.ts';
import { presentAssets } from '../shelf/present.ts';
import { FROM_OWN_MACHINE, type TakenIn, takeIn } from './take-in.ts';

const UPLOADS_PATH = '/api/uploads';

/** Resumable uploads (tus 1.0), and the taking in of what has come. */
export function uploadRoutes(context: Context): Router {
  const store = new FileStore({ directory: join(context.config.dataFolder, 'uploads') });
  const server = new Server({
    path: UPLOADS_PATH,
    datastore: store,
    maxSize: context.config.uploadLimitBytes,
    relativeLocation: true,
    respectForwardedHeaders: context.config.trustedProxies > 0,
    async onResponseError(_request, error) {
      if ('status_code' in error && error.status_code === 413) {
        return {
          status_code: 413,
          body: `The file is over ${sayBytes(context.config.uploadLimitBytes)}, which is the most that is taken. Make it smaller first.`,
        };
      }
      return undefined;
    },
  });
  const router = Router();

  router.post('/arrivals', async (request, response) => {
    const { uploadId } = checked(ArrivalSchema, request.body);
    const taken = await onlyOnce(uploadId, () => arrive(context, store, uploadId, personOf(request).id));
    const [asset] = await presentAssets(context, [taken.row]);
    const name = `${taken.row.stem}.${taken.row.extension}`;
    const sentence = taken.isNew
      ? `Taken in as ${name}.`
      : `Already on the shelf as ${name}; that one is used.`;
    response.json({ asset, isNew: taken.isNew, sentence });
  });

  router.all(['/uploads', '/uploads/{*rest}'], async (request, response) => {
    request.url = request.originalUrl;
    await server.handle(request, response);
  });
  return router;
}

const underWay = new Map<string, Promise<TakenIn>>();

/** Two requests for the same upload (a retry after a lost line) share one taking in. */
function onlyOnce(uploadId: string, work: () => Promise<TakenIn>): Promise<TakenIn> {
  const running = underWay.get(uploadId);
  if (running) return running;
  const started = work().finally(() => underWay.delete(uploadId));
  underWay.set(uploadId, started);
  return started;
}

async function arrive(
  context: Context,
  store: FileStore,
  uploadId: string,
  personId: string,
): Promise<TakenIn> {
  const before = await earlierArrival(context, uploadId);
  if (before) return before;
  const upload = await store.getUpload(uploadId).catch((cause: unknown) => {
    throw new Refusal(404, 'This upload is not known here any more. Hand the file in again.', {}, { cause });
  });
  if (upload.offset !== upload.size)
    throw new Refusal(409, 'The file has not come through to its end yet. It goes on where it stopped.');
  const name = upload.metadata?.filename ?? 'unnamed';
  const folder = folderPath(upload.metadata?.folder ?? '');
  const path = join(context.config.dataFolder, 'uploads', uploadId);
  try {
    const taken = await takeIn(
      context,
      { path, name, personId, folder, origin: FROM_OWN_MACHINE },
      new Date(),
    );
    await context.db
      .insert(arrivals)
      .ignore()
      .values({ uploadId, assetId: taken.row.id, isNew: taken.isNew, at: new Date() });
    await forget(store, uploadId);
    return taken;
  } catch (error) {
    // What was refused is not kept; what failed for another reason (no room, no database) can be asked for again.
    if (error instanceof Refusal) await forget(store, uploadId);
    throw error;
  }
}

async function earlierArrival(context: Context, uploadId: string): Promise<TakenIn | undefined> {
  const [known] = await context.db.select().from(arrivals).where(eq(arrivals.uploadId, uploadId));
  if (!known) return undefined;
  const [row] = await context.db.select().from(assets).where(eq(assets.id, known.assetId));
  if (!row) throw notFound('This piece');
  return { row, isNew: known.isNew };
}

async function forget(store: FileStore, uploadId: string): Promise<void> {
  await store.remove(uploadId).catch(() => store.configstore.delete(uploadId));
}
