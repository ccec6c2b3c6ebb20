import express, { Router } from 'express';
import type { NewInherited } from '#api/inherited.ts';
import { MOST_ADDRESSES } from '#api/inherited.ts';
import { clientGoneSignal } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { ForeignProblem } from '../foreign/problem.ts';
import { assertMayOrder } from '../jobs/queue.ts';
import { newId } from '../new-id.ts';
import { webAddress } from '../outbound/guard.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { allowed, personOf } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { route } from '../route.ts';
import {
  keptHtml,
  listInherited,
  orderBringIn,
  orderReading,
  putAway,
  readInherited,
  takeBack,
} from './store.ts';
import type { ToRead } from './to-read.ts';
import { type Unpacked, unpackPages } from './unpack.ts';

const MOST_FILE = '60mb';
const SECTION_LIMITS = { bytes: 5_000_000, millis: 15_000 };

export function inheritedRoutes(context: Context): Router {
  const router = Router();
  const mayBringIn = allowed('edit-pages');

  route(router, 'get /inherited', mayBringIn, async (_request, response) => {
    response.json(await listInherited(context));
  });

  route(router, 'post /inherited', mayBringIn, async (request, response) => {
    const person = personOf(request);
    await assertMayOrder(context, person.id);
    const { from, targetId } = request.body;
    const { pages, leftOut } = await inWords(() => pagesFrom(context, from, clientGoneSignal(response)));
    const ids = await orderReading(context, pages, targetId, person, new Date(), newId(context, request));
    response.status(202).json({ ids: [...ids], leftOut: [...leftOut] });
  });

  route(
    router,
    'post /inherited/files',
    mayBringIn,
    express.raw({ type: () => true, limit: MOST_FILE }),
    async (request, response) => {
      const person = personOf(request);
      await assertMayOrder(context, person.id);
      const { name, targetId } = request.query;
      const body: unknown = request.body;
      if (!Buffer.isBuffer(body) || body.length === 0) throw new HttpProblem(400, 'Hand in a file.');
      const { pages, leftOut } = await inWords(() =>
        unpackPages(context, body, name, clientGoneSignal(response)),
      );
      const ids = await orderReading(context, pages, targetId, person, new Date(), newId(context, request));
      response.status(202).json({ ids: [...ids], leftOut: [...leftOut] });
    },
  );

  route(router, 'get /inherited/{id}', mayBringIn, async (request, response) => {
    response.json(await readInherited(context, request.params.id));
  });

  route(router, 'get /inherited/{id}/html', mayBringIn, async (request, response) => {
    const html = await keptHtml(context, request.params.id);
    // Saved, and never opened here.
    response
      .set({
        'Content-Disposition': 'attachment; filename="page.html"',
        'Content-Security-Policy': 'sandbox',
      })
      .type('html')
      .send(html);
  });

  route(router, 'post /inherited/bring-in', mayBringIn, async (request, response) => {
    const { ids, ...wish } = request.body;
    const person = personOf(request);
    await assertMayOrder(context, person.id);
    await orderBringIn(context, ids, wish, person, new Date());
    response.json(await listInherited(context));
  });

  route(router, 'post /inherited/{id}/bring-in', mayBringIn, async (request, response) => {
    const { id } = request.params;
    const person = personOf(request);
    await assertMayOrder(context, person.id);
    await orderBringIn(context, [id], request.body, person, new Date());
    response.status(202).json(await readInherited(context, id));
  });

  route(router, 'post /inherited/{id}/take-back', mayBringIn, async (request, response) => {
    const { id } = request.params;
    await takeBack(context, id, personOf(request), new Date());
    response.json(await readInherited(context, id));
  });

  route(router, 'delete /inherited/{id}', mayBringIn, async (request, response) => {
    await putAway(context, request.params.id);
    response.status(204).end();
  });
  return router;
}

/** What is to be read, as it was given. */
async function pagesFrom(
  context: Context,
  from: NewInherited['from'],
  signal: AbortSignal,
): Promise<Unpacked> {
  switch (from.kind) {
    case 'addresses':
      return { pages: from.addresses.map(atAddress), leftOut: [] };
    case 'html': {
      const isKnown = from.address !== '' && URL.canParse(from.address);
      const base = isKnown ? webAddress(from.address).href : 'https://handed-in.invalid/';
      return {
        pages: [{ source: from.name || 'pasted HTML', address: null, base, html: from.html }],
        leftOut: [],
      };
    }
    case 'section':
      return sectionAt(context, from.address, signal);
  }
}

function atAddress(said: string): ToRead {
  const { href } = webAddress(/^[a-z]+:/i.test(said) ? said : `https://${said}`);
  return { source: href, address: href, base: href, html: null };
}

async function sectionAt(context: Context, said: string, signal: AbortSignal): Promise<Unpacked> {
  const { href } = webAddress(said);
  const list = await context.outbound.read(href, { limits: SECTION_LIMITS, signal });
  const text = list.bytes.toString('utf8');
  const addresses = await context.texts.section({ text, base: list.address }, signal);
  if (addresses.length === 0)
    throw new HttpProblem(
      422,
      'Nothing at this address names pages: give the sitemap of a site, or a page that links to those of its section.',
    );
  const more = addresses.length - MOST_ADDRESSES;
  return {
    pages: addresses.slice(0, MOST_ADDRESSES).map(atAddress),
    leftOut:
      more > 0
        ? [`${more} more pages: ${MOST_ADDRESSES} are read at once. Give the rest when these are in.`]
        : [],
  };
}

/** What could not be fetched or read, as a problem of this request. */
async function inWords<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof OutboundProblem) throw new HttpProblem(422, error.message, {}, { cause: error });
    if (error instanceof ForeignProblem && error.fault !== 'stopped')
      throw new HttpProblem(422, 'It takes too long to be read. Nothing was taken.', {}, { cause: error });
    throw error;
  }
}
