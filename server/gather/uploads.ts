import { join } from 'node:path';
import { Server } from '@tus/server';
import { eq } from 'drizzle-orm';
import { type Request, Router } from 'express';
import { sayBytes } from '#core/media/weight.ts';
import { folderPath } from '#core/naming/folders.ts';
import type { Context } from '../context.ts';
import { arrivals, held, uploads } from '../db/schema.ts';
import { personOf } from '../people/guard.ts';
import { asHttpProblem, HttpProblem, notFound } from '../problem.ts';
import { compOf } from '../rights/comp-of.ts';
import { route } from '../route.ts';
import { presentAsset } from '../shelf/present.ts';
import { FROM_OWN_MACHINE } from './incoming.ts';
import { takeSidecar } from './sidecar.ts';
import { type TakenIn, takeIn } from './take-in.ts';
import { uploadLocker } from './upload-lock.ts';
import { beginUpload, isOwnUpload, UploadStore } from './upload-store.ts';

const UPLOADS_PATH = '/api/uploads';
const UPLOAD_ID = /^[a-f0-9]{32}$/;

/** Resumable uploads (tus 1.0), and the taking in of what has come. */
export function uploadRoutes(context: Context): Router {
  const store = new UploadStore({ directory: join(context.config.dataFolder, 'uploads') });
  const server = new Server({
    path: UPLOADS_PATH,
    datastore: store,
    locker: uploadLocker(context),
    maxSize: context.config.uploadLimitBytes,
    relativeLocation: true,
    respectForwardedHeaders: context.config.trustedProxies > 0,
    async onUploadCreate(request, { id, size }) {
      if (size === undefined)
        throw told(new HttpProblem(400, 'Say how large the file is before it is sent.'));
      const { id: personId } = personOf(nodeRequest(request));
      await beginUpload(context, { id, bytes: size }, personId, new Date()).catch((error: unknown) => {
        throw told(asHttpProblem(error));
      });
      return {};
    },
    async onResponseError(_request, error) {
      if (!('status_code' in error)) return asTold(context, error);
      if (error.status_code !== 413) return undefined;
      return {
        status_code: 413,
        body: `The file is over ${sayBytes(context.config.uploadLimitBytes)}, which is the most that is taken. Make it smaller first.`,
      };
    },
  });
  const router = Router();

  route(router, 'post /sidecars', async (request, response) => {
    response.json(await takeSidecar(context, request.body, personOf(request), new Date()));
  });

  route(router, 'post /arrivals', async (request, response) => {
    const { uploadId, sidecar } = request.body;
    const person = personOf(request);
    const taken = await context.arrivals(person.id, () =>
      arrive(context, store, { uploadId, sidecar }, person.id),
    );
    const asset = await presentAsset(context, taken.row, person);
    const name = `${taken.row.stem}.${taken.row.extension}`;
    const sentence = taken.isNew
      ? `Taken in as ${name}.`
      : `Already on the shelf as ${name}; that one is used.`;
    const comp = await compOf(context, taken.row).catch((error: unknown) => {
      context.log.warn({ err: error, asset: taken.row.id }, 'what came in could not be compared with comps');
      return null;
    });
    const shown = comp ? await presentAsset(context, comp, person) : null;
    response.json({ asset, isNew: taken.isNew, sentence, comp: shown });
  });

  router.all(['/uploads', '/uploads/{*rest}'], async (request, response) => {
    const id = /^\/uploads\/([^/]+)\/?$/.exec(request.path)?.[1];
    // What has come has not been looked at yet, so nothing of it is ever handed out again.
    if (request.method === 'GET') throw notFound('This address');
    if (id && !(UPLOAD_ID.test(id) && (await isOwnUpload(context, id, personOf(request).id))))
      throw unknownUpload();
    request.url = request.originalUrl;
    await server.handle(request, response);
    if (id && request.method === 'DELETE' && response.statusCode < 300)
      await context.db.delete(uploads).where(eq(uploads.id, id));
  });
  return router;
}

/** The request of this server behind the one that the tus package made of it. */
function nodeRequest(request: { readonly runtime?: { readonly node?: { readonly req: unknown } } }): Request {
  return request.runtime?.node?.req as Request;
}

/** A refusal as the tus package tells errors. */
function told({ status, message }: HttpProblem) {
  return Object.assign(new Error(message), { status_code: status, body: message });
}

function asTold(context: Context, error: Error) {
  const refusal = asHttpProblem(error);
  if (refusal.status >= 500) context.log.error({ err: error }, 'an upload failed');
  return { status_code: refusal.status, body: refusal.message };
}

/** Takes in what has come, once: whoever asks again, here or at another process, waits and is answered the same. */
async function arrive(
  context: Context,
  store: UploadStore,
  finished: Finished,
  personId: string,
): Promise<TakenIn> {
  const { uploadId } = finished;
  const before = await earlierArrival(context, uploadId, personId);
  if (before) return before;
  const lock = uploadLocker(context).newLock(uploadId);
  try {
    if (!(await isOwnUpload(context, uploadId, personId))) throw unknownUpload();
    await lock.lock(new AbortController().signal, () => undefined);
  } catch (error) {
    // Somebody who was quicker has taken it in meanwhile, and nothing is left of it to be locked.
    const taken = await earlierArrival(context, uploadId, personId);
    if (taken) return taken;
    throw asUploadProblem(error);
  }
  try {
    return (
      (await earlierArrival(context, uploadId, personId)) ??
      (await takeUpload(context, store, finished, personId))
    );
  } finally {
    await lock.unlock();
  }
}

const unknownUpload = () =>
  new HttpProblem(404, 'This upload is not known here any more. Hand the file in again.');

function asUploadProblem(error: unknown): unknown {
  if (error instanceof Error && 'status_code' in error && typeof error.status_code === 'number')
    return new HttpProblem(error.status_code, error.message, {}, { cause: error });
  return error;
}

interface Finished {
  readonly uploadId: string;
  readonly sidecar: string | undefined;
}

async function takeUpload(
  context: Context,
  store: UploadStore,
  { uploadId, sidecar }: Finished,
  personId: string,
): Promise<TakenIn> {
  const upload = await store.getUpload(uploadId).catch((cause: unknown) => {
    throw new HttpProblem(
      404,
      'This upload is not known here any more. Hand the file in again.',
      {},
      { cause },
    );
  });
  if (upload.offset !== upload.size)
    throw new HttpProblem(409, 'The file has not come through to its end yet. It goes on where it stopped.');
  const name = upload.metadata?.filename ?? 'unnamed';
  const folder = folderPath(upload.metadata?.folder ?? '');
  const pageId = upload.metadata?.page ?? null;
  const path = join(context.config.dataFolder, 'uploads', uploadId);
  try {
    const taken = await takeIn(
      context,
      {
        path,
        name,
        personId,
        folder,
        pageId,
        origin: FROM_OWN_MACHINE,
        ...(sidecar === undefined ? {} : { sidecar }),
      },
      new Date(),
    );
    await context.db
      .insert(arrivals)
      .ignore()
      .values({ uploadId, assetId: taken.row.id, personId, isNew: taken.isNew, at: new Date() });
    await forget(context, store, uploadId);
    return taken;
  } catch (error) {
    // What was refused is not kept; what failed for another reason (no room, no database) can be asked for again.
    if (error instanceof HttpProblem && error.status < 500 && error.status !== 429)
      await forget(context, store, uploadId);
    throw error;
  }
}

async function earlierArrival(
  { db }: Context,
  uploadId: string,
  personId: string,
): Promise<TakenIn | undefined> {
  const [known] = await db.select().from(arrivals).where(eq(arrivals.uploadId, uploadId));
  if (!known || (known.personId !== null && known.personId !== personId)) return undefined;
  const [row] = await db.select().from(held).where(eq(held.id, known.assetId));
  if (!row) throw notFound('This piece');
  return { row, isNew: known.isNew };
}

async function forget({ db }: Context, store: UploadStore, uploadId: string): Promise<void> {
  await store.remove(uploadId).catch(() => store.configstore.delete(uploadId));
  await db.delete(uploads).where(eq(uploads.id, uploadId));
}
