import { writeFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  type Delivery,
  DeliverySchema,
  ForeseenSchema,
  type LearnedAnswer,
  LearnedSchema,
  SentCodeSchema,
} from '#api/deliveries.ts';
import { type Target, TargetSchema } from '#api/targets.ts';
import { rulesLearned } from '#core/deliver/learned.ts';
import { NOT_SENT, type Sending } from '#core/deliver/sending.ts';
import { madeUpHosts } from '#core/embed/made-up-hosts.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import { probes } from '../db/schema.ts';
import { workOne } from '../jobs/worker.ts';
import { detailOf, heldHeron, startTestServer, type TestServer } from '../testing.ts';
import { SEND } from './send.ts';
import { freePort, readersOf, type TestHost } from './testing-hosts.ts';

const TOKEN = 'saltmere-reserve-site';
let server: TestServer;
let assetId: string;
let bulletinId: string;
let readers: TestHost;
/** Where a site of a test of its own may stand. */
let spare: number;

beforeAll(async () => {
  readers = await readersOf(tmpdir(), await freePort());
  spare = await freePort();
  server = await startTestServer('probe', {
    outside: true,
    env: { PLACARD_NEAR_HOSTS: `127.0.0.1:${readers.port} 127.0.0.1:${spare}` },
  });
  assetId = await heldHeron(server);
  const entries = madeUpHosts((host) => server.at(host, ''));
  await server.ask('/api/embeds/hosts', { as: 'sunniva', method: 'PUT', version: 0, body: { entries } });
  const made = await server.ask('/api/targets', {
    as: 'sunniva',
    method: 'POST',
    body: { name: 'Bulletin', siteAddress: server.at('bulletin', '/'), commercial: false, like: 'reserve' },
  });
  bulletinId = v.parse(TargetSchema, made.body).id;
  for (const [id, host, token] of [
    ['reserve', 'reserve', TOKEN],
    [bulletinId, 'bulletin', 'saltmere-bulletin'],
  ] as const) {
    await sendingBy(id, { by: 'micropub', address: server.at(host, '/micropub') });
    await server.ask(`/api/targets/${id}/token`, { as: 'sunniva', method: 'PUT', body: { token } });
  }
});
afterAll(async () => {
  await server.close();
  await readers.end();
});

const target = async (id: string): Promise<Target> =>
  v.parse(TargetSchema, (await server.ask(`/api/targets/${id}`)).body);

async function save(id: string, change: (rules: HouseRules) => HouseRules): Promise<void> {
  const { rules, version } = await target(id);
  const saved = await server.ask(`/api/targets/${id}`, {
    as: 'sunniva',
    method: 'PUT',
    version,
    body: change(rules),
  });
  expect(saved.status).toBe(200);
}

const sendingBy = (id: string, sending: Partial<Sending>) =>
  save(id, (rules) => ({ ...rules, sending: { ...NOT_SENT, ...sending } }));

const probe = (id: string, address: string | null = null) =>
  server.ask(`/api/targets/${id}/probe`, { as: 'sunniva', method: 'POST', body: { address } });
const learned = async (id: string, address: string | null = null): Promise<LearnedAnswer> => {
  const answer = await probe(id, address);
  expect(answer.status).toBe(200);
  return v.parse(LearnedSchema, answer.body);
};

async function pageFor(targetId: string): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title: 'Bitterns boom', targetId, wants: [] },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const doc = {
    ...emptyPage('Bitterns boom'),
    blocks: [
      { type: 'placement', attrs: newPlacement('one', assetId, 'beside-left') },
      {
        type: 'details',
        attrs: { id: 'folded', summary: 'How they are counted' },
        content: [
          { type: 'paragraph', attrs: { id: 'p' }, content: [{ type: 'text', text: 'By ear, at dusk.' }] },
        ],
      },
    ],
  };
  const saved = await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 });
  expect(saved.status).toBe(200);
  return id;
}

const foreseenOf = async (pageId: string) =>
  v.parse(ForeseenSchema, (await server.ask(`/api/pages/${pageId}/foreseen`)).body);

async function sent(pageId: string): Promise<Delivery> {
  const ordered = await server.ask(`/api/pages/${pageId}/deliveries`, { method: 'POST', body: {} });
  expect(ordered.status).toBe(202);
  await workOne(server.context, [SEND]);
  const { id } = v.parse(DeliverySchema, ordered.body);
  return v.parse(DeliverySchema, (await server.ask(`/api/deliveries/${id}`)).body);
}

const codesOf = ({ differences }: Pick<Delivery, 'differences'>) => differences.map(({ code }) => code);

describe('a probe', () => {
  it('shows what a site keeps, stands there no longer than that takes, and leaves nothing said behind', async () => {
    const bulletin = await learned(bulletinId);
    expect(new Set(bulletin.filter.unwrapped)).toEqual(new Set(['figure', 'picture']));
    expect(new Set(bulletin.filter.dropped)).toEqual(
      new Set(['figcaption', 'details', 'source', 'video', 'audio']),
    );
    expect(bulletin.filter.attributes).toEqual(
      expect.arrayContaining(['class', 'id', 'img srcset', 'img sizes']),
    );
    expect(bulletin.filter.styles).toEqual([]);
    expect(bulletin.tried.map((address) => new URL(address).hostname)).toEqual(
      expect.arrayContaining(['fathomchart.localhost', 'lanternreel.localhost']),
    );
    expect(bulletin.frames).toEqual([]);
    const reserve = await learned('reserve');
    expect(reserve.filter).toEqual({ unwrapped: [], dropped: [], attributes: [], styles: [] });
    expect(reserve.frames).toEqual(reserve.tried);
    for (const host of ['bulletin', 'reserve']) {
      const { bytes } = await server.context.outbound.probe(server.at(host, '/'), {
        limits: { bytes: 1_000_000, millis: 10_000 },
      });
      expect(String(bytes)).not.toContain('A probe of what this site keeps');
    }
    expect(await server.context.db.select().from(probes)).toEqual([]);
    // What it said is only proposed.
    expect((await target(bulletinId)).rules.sending.filter.dropped).toEqual([]);
  });

  it('that a killed process left there is taken down by the next', async () => {
    await learned('reserve');
    const address = server.at('reserve', '/pages/left-over');
    await server.context.db.insert(probes).values({ targetId: 'reserve', address, at: new Date() });
    // It is gone by now, which is what was wanted.
    await learned('reserve');
    expect(await server.context.db.select().from(probes)).toEqual([]);
  });

  it('that a site does not let be taken down has taught all the same, and is named', async () => {
    const site = { page: '' };
    const http = createServer((request, response) => {
      if (request.method === 'POST' && request.url === '/media')
        return void response.writeHead(201, { location: `${origin}/probe.png` }).end();
      if (request.url?.includes('q=config'))
        return void response
          .writeHead(200, { 'content-type': 'application/json' })
          .end(JSON.stringify({ 'media-endpoint': `${origin}/media` }));
      if (request.method === 'GET')
        return void response
          .writeHead(200, { 'content-type': 'text/html' })
          .end(request.url === '/page' ? site.page : '{}');
      let text = '';
      request.on('data', (chunk: Buffer) => {
        text += chunk.toString('utf8');
      });
      request.on('end', () => {
        const said = v.parse(v.looseObject({ properties: v.optional(v.unknown()) }), JSON.parse(text));
        if (said.properties === undefined) return void response.writeHead(403).end('{}');
        const { content } = v.parse(
          v.looseObject({ content: v.tuple([v.looseObject({ html: v.string() })]) }),
          said.properties,
        );
        site.page = content[0].html;
        response.writeHead(201, { location: `${origin}/page` }).end();
      });
    });
    const origin = `http://127.0.0.1:${spare}`;
    await new Promise<void>((resolve) => http.listen(spare, '127.0.0.1', resolve));
    try {
      await sendingBy('reserve', { by: 'micropub', address: `${origin}/micropub` });
      await server.ask('/api/targets/reserve/token', {
        as: 'sunniva',
        method: 'PUT',
        body: { token: TOKEN },
      });
      const answer = await learned('reserve');
      expect(answer.left).toBe(`${origin}/page`);
      expect(answer.filter.dropped).toEqual([]);
    } finally {
      http.closeAllConnections();
      http.close();
      await server.context.db.delete(probes);
      await sendingBy('reserve', { by: 'micropub', address: server.at('reserve', '/micropub') });
      await server.ask('/api/targets/reserve/token', {
        as: 'sunniva',
        method: 'PUT',
        body: { token: TOKEN },
      });
    }
  });

  it('is for the site owner, and says plainly what keeps it from being sent', async () => {
    const refused = await server.ask('/api/targets/reserve/probe', {
      method: 'POST',
      body: { address: null },
    });
    expect(refused.status).toBe(403);
    await server.ask('/api/targets/reserve/token', {
      as: 'sunniva',
      method: 'PUT',
      body: { token: 'another' },
    });
    const shut = await probe('reserve');
    expect([shut.status, detailOf(shut)]).toEqual([502, expect.stringContaining('token')]);
    await server.ask('/api/targets/reserve/token', { as: 'sunniva', method: 'PUT', body: { token: TOKEN } });
  });

  it('is pasted by hand where pages are, and learned from where it stands', async () => {
    await sendingBy('reserve', { by: 'paste' });
    expect((await probe('reserve')).status).toBe(409);
    const { html } = v.parse(
      SentCodeSchema,
      (await server.ask('/api/targets/reserve/probe', { as: 'sunniva' })).body,
    );
    const name = `placard-probe-${readers.port}.html`;
    await writeFile(
      join(tmpdir(), name),
      `<title>x</title><main>${html.replaceAll(/ style="[^"]*"/g, '')}</main>`,
    );
    const there = `http://127.0.0.1:${readers.port}/${name}`;
    expect((await learned('reserve', there)).filter).toEqual({
      unwrapped: [],
      dropped: [],
      attributes: ['style'],
      styles: [],
    });
    const elsewhere = await probe('reserve', server.at('reserve', '/'));
    expect([elsewhere.status, detailOf(elsewhere)]).toEqual([
      409,
      expect.stringContaining('The probe does not stand at'),
    ]);
  });
});

describe('a page that is not sent yet', () => {
  it('shows what will be lost there, as it is found to be afterwards; agreed to, no words are', async () => {
    const id = await pageFor(bulletinId);
    expect((await foreseenOf(id)).differences).toEqual([]);
    const unforeseen = await sent(id);
    expect(codesOf(unforeseen)).toEqual(expect.arrayContaining(['caption-lost', 'words-lost']));

    // As a probe has shown it, but written as before.
    const { filter, frames, tried } = await learned(bulletinId);
    await sendingBy(bulletinId, { ...(await target(bulletinId)).rules.sending, filter });
    const before = await foreseenOf(id);
    await save(bulletinId, (rules) => rulesLearned(rules, { filter, frames }, tried));
    const agreed = (await target(bulletinId)).rules;
    expect([agreed.sending.captions, agreed.sending.sides, agreed.embeds.frames]).toEqual([
      'plain',
      'picture',
      false,
    ]);
    const ahead = await foreseenOf(id);
    expect(before.differences.length).toBeGreaterThan(ahead.differences.length);
    expect(codesOf(ahead)).not.toEqual(expect.arrayContaining(['words-lost']));
    const found = await sent(id);
    expect(codesOf(found)).toEqual(codesOf(ahead));
    expect(found.differences.filter(({ isLost }) => isLost)).toEqual([]);

    const shown = async (address: string) => {
      const answer = await fetch(address);
      return `${answer.status} ${await answer.text()}`;
    };
    expect(await shown(ahead.frames.sent)).toMatch(/^200 .*<h1[^>]*>Bitterns boom<.*<figure/s);
    const stands = await shown(ahead.frames.found);
    expect(stands).toMatch(/^200 .*<h1[^>]*>Bitterns boom</s);
    expect(stands).not.toContain('<figure');
  });
});
