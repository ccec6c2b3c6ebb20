import { and, eq, inArray, isNull } from 'drizzle-orm';
import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import type * as v from 'valibot';
import type { Album, CloserLook, FoundPicture, GatherQuerySchema, SealedPicture } from '#api/gather.ts';
import type { Person, Reader } from '#api/people.ts';
import type { GatherQuestion } from '#core/gather/question.ts';
import type { Statement } from '#core/gather/statement.ts';
import { fromOutbound, withClientAbort } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { assets, provenance } from '../db/schema.ts';
import { assertMayOrder, stopJob } from '../jobs/queue.ts';
import { newId } from '../new-id.ts';
import { retry } from '../outbound/retry.ts';
import { allowed, personOf } from '../people/guard.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { route } from '../route.ts';
import { alikeRows } from '../shelf/lookalikes.ts';
import { presentAssets } from '../shelf/present.ts';
import { seenBy } from '../shelf/seen.ts';
import { clippersOf, handInClip, makeClipper, openClip, revokeClipper, waitingClips } from './clipper.ts';
import { askPage } from './page-says.ts';
import { farAddress, farLook } from './preview.ts';
import { lookAtFile, readAddress } from './read-address.ts';
import { openSeal, sealOf } from './seal.ts';
import type { Source, SourceTools } from './sources/source.ts';
import { maybeSource, SOURCES } from './sources/sources.ts';
import { orderTaking, readGathering, recentGatherings } from './taking.ts';

/** A source that does not answer is asked once more, and then said to be silent. */
const PATIENCE = { tries: 2, firstWaitMillis: 400, longestWaitMillis: 1500 };

/** Searching sources, reading addresses, taking what was found, clippers. */
export function gatherRoutes(context: Context): Router {
  const router = Router();
  const mayGather = allowed('gather');

  route(router, 'get /sources', mayGather, (_request, response) => {
    const known = SOURCES.filter(({ id }) => context.config.sourceOrigins[id] !== undefined);
    response.json(known.map(({ id, name, about, kind }) => ({ id, name, about, kind })));
  });

  route(router, 'get /sources/{id}/pictures', mayGather, async (request, response) => {
    const query = request.query;
    const source = knownSource(context, request.params.id);
    const { pictures, count, cursor } = await withClientAbort(context, request, response, (signal) =>
      retry(PATIENCE, signal, () =>
        source.search(questionOf(query), query.cursor ?? null, toolsFor(context, source, signal)),
      ),
    );
    response.json({ pictures: await sealed(context, pictures, personOf(request)), count, cursor });
  });

  route(router, 'get /sources/{id}/albums', mayGather, async (request, response) => {
    const source = knownSource(context, request.params.id);
    if (!source.albums) throw notFound('This album list');
    const list = source.albums;
    const albums = await withClientAbort(context, request, response, (signal) =>
      retry(PATIENCE, signal, () => list(toolsFor(context, source, signal))),
    );
    const held = await heldStamps(
      context,
      source.id,
      albums.flatMap(({ files }) => files),
      personOf(request),
    );
    response.json(
      albums.map(
        ({ id, name, files }): Album => ({
          id,
          name,
          files: files.length,
          fresh: files.filter((file) => held.get(file.key)?.stamp !== file.stamp).length,
        }),
      ),
    );
  });

  route(router, 'get /sources/{id}/albums/{albumId}', mayGather, async (request, response) => {
    const source = knownSource(context, request.params.id);
    const list = source.albums;
    if (!list) throw notFound('This album');
    const albums = await withClientAbort(context, request, response, (signal) =>
      retry(PATIENCE, signal, () => list(toolsFor(context, source, signal))),
    );
    const album = albums.find(({ id }) => id === request.params.albumId);
    if (!album) throw notFound('This album');
    response.json({
      pictures: await sealed(context, album.files, personOf(request)),
      count: album.files.length,
      cursor: null,
    });
  });

  route(router, 'post /readings', mayGather, async (request, response) => {
    const { address } = request.body;
    const read = await withClientAbort(context, request, response, (signal) =>
      readAddress(context, address, signal),
    );
    response.json({ ...read, pictures: await sealed(context, read.pictures, personOf(request)) });
  });

  route(router, 'post /closer-looks', mayGather, async (request, response) => {
    const { seal } = request.body;
    const picture = openSeal(context, seal);
    response.json(
      await withClientAbort(context, request, response, (signal) =>
        lookCloser(context, picture, personOf(request), signal),
      ),
    );
  });

  route(router, 'post /gatherings', mayGather, async (request, response) => {
    const take = request.body;
    const person = personOf(request);
    await assertMayOrder(context, person.id);
    const jobId = await orderTaking(context, take, person.id, new Date(), newId(context, request));
    response.status(202).json(await readGathering(context, jobId, person));
  });

  route(router, 'get /gatherings', async (request, response) => {
    response.json(await recentGatherings(context, personOf(request), new Date()));
  });

  route(router, 'get /gatherings/{id}', async (request, response) => {
    response.json(await readGathering(context, request.params.id, personOf(request)));
  });

  route(router, 'post /gatherings/{id}/stop', async (request, response) => {
    const { jobId } = await readGathering(context, request.params.id, personOf(request));
    await stopJob(context, jobId);
    response.status(202).json(await readGathering(context, jobId, personOf(request)));
  });

  route(router, 'get /clippers', mayGather, async (request, response) => {
    response.json(await clippersOf(context, personOf(request).id, new Date()));
  });

  route(router, 'post /clippers', mayGather, async (request, response) => {
    response.status(201).json(await makeClipper(context, personOf(request).id, new Date()));
  });

  route(router, 'delete /clippers/{id}', mayGather, async (request, response) => {
    await revokeClipper(context, request.params.id, personOf(request).id, new Date());
    response.status(204).end();
  });

  route(router, 'get /clips', mayGather, async (request, response) => {
    response.json(await waitingClips(context, personOf(request).id, new Date()));
  });

  route(router, 'post /clips/{id}/open', mayGather, async (request, response) => {
    response.json(await openClip(context, request.params.id, personOf(request).id, new Date()));
  });
  return router;
}

const CLIPS_A_MINUTE = 60;

function clipLimit() {
  return rateLimit({
    windowMs: 60_000,
    limit: CLIPS_A_MINUTE,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, _response, next) =>
      next(new HttpProblem(429, 'Too many pages were handed in from here. Wait a minute and try again.')),
  });
}

/** Handing in a clip needs the clipper's token and no session, so it stands before the sign-in. */
export function clipRoutes(context: Context): Router {
  const router = Router();
  route(router, 'post /clips', clipLimit(), async (request, response) => {
    const clip = request.body;
    const id = await handInClip(context, clip, new Date()).catch((error: unknown) => {
      throw fromOutbound(error);
    });
    response.status(201).json({ id });
  });
  return router;
}

function knownSource(context: Context, id: string): Source {
  const source = maybeSource(id);
  if (!source || context.config.sourceOrigins[id] === undefined) throw notFound('This source');
  return source;
}

function toolsFor(context: Context, source: Source, signal: AbortSignal): SourceTools {
  return {
    outbound: context.outbound,
    texts: context.texts,
    origin: context.config.sourceOrigins[source.id] ?? '',
    signal,
  };
}

function questionOf(query: v.InferOutput<typeof GatherQuerySchema>): GatherQuestion {
  return {
    words: query.words?.trim() ?? '',
    commercial: query.commercial === 'yes',
    changes: query.changes === 'yes',
    shape: query.shape ?? 'any',
    leastWidth: Number(query.leastWidth ?? 0),
  };
}

/** Found pictures with an address to look at them and the seal that lets them be taken. */
async function sealed(
  context: Context,
  pictures: readonly FoundPicture[],
  reader: Reader,
): Promise<SealedPicture[]> {
  const held = await heldStamps(context, null, pictures, reader);
  return pictures.map((picture) => ({
    ...picture,
    look: farAddress(context, { address: picture.preview || picture.address, page: picture.pageAddress }),
    seal: sealOf(context, picture),
    heldAs: held.get(picture.key)?.asset ?? null,
  }));
}

/** By key within the source: the piece that came from there, and the state that its file was in. */
async function heldStamps(
  context: Context,
  sourceId: string | null,
  pictures: readonly FoundPicture[],
  reader: Reader,
) {
  const keys = pictures.map(({ key }) => key);
  if (keys.length === 0) return new Map<string, { stamp: string; asset: { id: string; name: string } }>();
  const rows = await context.db
    .select({
      key: provenance.sourceKey,
      stamp: provenance.stamp,
      id: assets.id,
      stem: assets.stem,
      extension: assets.extension,
    })
    .from(provenance)
    .innerJoin(assets, eq(assets.id, provenance.assetId))
    .where(
      and(
        inArray(provenance.sourceKey, keys),
        isNull(assets.deletedAt),
        seenBy(context, reader),
        sourceId ? eq(provenance.sourceId, sourceId) : undefined,
      ),
    );
  return new Map(
    rows.map((row) => [
      row.key ?? '',
      { stamp: row.stamp ?? '', asset: { id: row.id, name: `${row.stem}.${row.extension}` } },
    ]),
  );
}

/** Before a result is taken: what its own page and its file say, and what on the shelf looks like it. */
async function lookCloser(
  context: Context,
  picture: FoundPicture,
  person: Person,
  signal: AbortSignal,
): Promise<CloserLook> {
  const [page, alike] = await Promise.all([
    pageOf(context, picture, signal),
    alikeOnShelf(context, picture, person).catch(() => []),
  ]);
  return { ...page, alike };
}

async function pageOf(
  context: Context,
  picture: FoundPicture,
  signal: AbortSignal,
): Promise<{ pageSays: Statement[]; pageFault: string | null }> {
  // A page that was read to find the picture has been heard already.
  if (picture.pageAddress === '' || picture.source === 'web') {
    const known = picture.statements.length;
    const { statements } = await lookAtFile(context, picture, signal);
    return { pageSays: statements.slice(known), pageFault: null };
  }
  const { said, fault } = await askPage(
    context,
    { page: picture.pageAddress, picture: picture.address },
    signal,
  );
  return { pageSays: [...(said ?? [])], pageFault: fault };
}

async function alikeOnShelf(
  context: Context,
  picture: FoundPicture,
  person: Person,
): Promise<CloserLook['alike']> {
  const look = await farLook(context, {
    address: picture.preview || picture.address,
    page: picture.pageAddress,
  });
  const rows = await alikeRows(context, look, person);
  const shown = await presentAssets(
    context,
    rows.map(({ row }) => row),
    person,
  );
  const apart = new Map(rows.map(({ row, bitsApart }) => [row.id, bitsApart]));
  return shown.map((asset) => ({ asset, bitsApart: apart.get(asset.id) ?? 0 }));
}
