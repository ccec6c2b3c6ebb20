import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AssetSchema } from '#api/assets.ts';
import { JobSchema } from '#api/jobs.ts';
import { madeUpHosts } from '#core/embed/made-up-hosts.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import { jobs } from '../db/schema.ts';
import { workOne } from '../jobs/worker.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { MAKE_FILM } from './kinds.ts';
import { MOVE_FILM } from './move.ts';
import { filmOf } from './testing-films.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('move', { outside: true });
  const entries = madeUpHosts((host) => server.at(host, ''));
  await server.ask('/api/embeds/hosts', { as: 'sunniva', method: 'PUT', version: 0, body: { entries } });
});
afterAll(() => server.close());

async function heldFilm(title: string): Promise<string> {
  const film = await filmOf({ name: 'ramp.mp4', seconds: 1, title });
  const { id, version } = arrivedOf(await server.handIn(film, 'ramp.mp4')).asset;
  await server.ask(`/api/assets/${id}`, {
    method: 'PATCH',
    version,
    body: { label: { licence: 'own', creator: 'Saltmere Marsh Reserve' } },
  });
  const cues = [{ from: 0, to: 1000, text: 'Eels cannot jump.' }];
  await server.ask(`/api/assets/${id}/tracks/captions/en`, { method: 'PUT', version: 0, body: { cues } });
  await workOne(server.context, [MAKE_FILM]);
  return id;
}

async function pageWith(assetId: string): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title: 'The ramp', targetId: 'reserve', wants: [] },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const blocks = [{ type: 'placement', attrs: newPlacement('p0', assetId) }];
  const doc = { ...emptyPage('The ramp'), tray: [assetId], blocks };
  await server.ask(`/api/pages/${id}`, { method: 'PUT', version: 1, body: { doc } });
  return id;
}

const setToken = (token: string, as: Who = 'sunniva') =>
  server.ask('/api/film-hosts/lanternreel/token', { as, method: 'PUT', body: { token } });
const order = (id: string) =>
  server.ask(`/api/assets/${id}/film/move`, {
    method: 'POST',
    body: { host: 'lanternreel', visibility: 'by-link' },
  });

async function moved(id: string) {
  const ordered = await order(id);
  expect(ordered.status, JSON.stringify(ordered.body)).toBe(202);
  await workOne(server.context, [MOVE_FILM]);
  return v.parse(JobSchema, (await server.ask(`/api/jobs/${v.parse(JobSchema, ordered.body).id}`)).body);
}

describe('a film that is moved to the film host', () => {
  it('waits until the site owner has given the token of the house, which is never shown', async () => {
    const id = await heldFilm('Not yet');
    expect(detailOf(await order(id))).toContain('does not know the house yet');
    expect((await setToken('saltmere-lanternreel', 'mara')).status).toBe(403);
    expect((await setToken('two words')).status).toBe(422);
    await setToken('of-somebody-else');
    const refused = await moved(id);
    expect(refused).toMatchObject({ state: 'failed' });
    expect(refused.words).toContain('does not know the token of the house any more. The film stays here.');
    const hosts = await server.ask('/api/film-hosts');
    expect(JSON.stringify(hosts.body)).toBe('[{"id":"lanternreel","name":"Lanternreel","isReady":true}]');
  }, 60_000);

  it('plays there with its captions, in its place on every page, with its rights', async () => {
    await setToken('saltmere-lanternreel');
    const id = await heldFilm('Building the ramp');
    const pageId = await pageWith(id);
    const job = await moved(id);
    expect(job).toMatchObject({ state: 'done' });
    expect(job.words).toContain('It plays at Lanternreel now, on one page.');
    const { body } = await server.ask(`/api/pages/${pageId}`);
    const { doc } = v.parse(v.looseObject({ doc: v.looseObject({ blocks: v.array(v.any()) }) }), body);
    const embedId = doc.blocks.find(({ type }) => type === 'placement').attrs.asset;
    expect(embedId).not.toBe(id);
    const embed = v.parse(AssetSchema, (await server.ask(`/api/assets/${embedId}`)).body);
    expect(embed).toMatchObject({
      kind: 'embed',
      label: { title: 'Building the ramp', licence: 'own', creator: 'Saltmere Marsh Reserve' },
      embed: { embed: { host: 'lanternreel', facts: { captions: ['en'] } } },
    });
    // In the bin, from where it can be brought back.
    expect((await server.ask(`/api/assets/${id}`)).status).toBe(404);
  }, 60_000);

  it('is there once, however often its order is worked', async () => {
    const id = await heldFilm('Only once');
    const ordered = await order(id);
    const { id: jobId } = v.parse(JobSchema, ordered.body);
    // Killed after it had gone there: another worker takes it over.
    await workOne(server.context, [MOVE_FILM]);
    const stateNow = async () => v.parse(JobSchema, (await server.ask(`/api/jobs/${jobId}`)).body);
    await server.context.db.update(jobs).set({ state: 'waiting' }).where(eq(jobs.id, jobId));
    await workOne(server.context, [MOVE_FILM]);
    expect(await stateNow()).toMatchObject({
      state: 'done',
      words: expect.stringContaining('in the bin already'),
    });
    await server.ask(`/api/assets/${id}/back`, { method: 'POST' });
    await server.context.db.update(jobs).set({ state: 'waiting' });
    await workOne(server.context, [MOVE_FILM]);
    const shelf = await server.ask('/api/assets?kind=embed&words=Only+once');
    const { assets } = v.parse(v.looseObject({ assets: v.array(v.any()) }), shelf.body);
    expect(assets).toHaveLength(1);
    expect((await server.ask(`/api/jobs/${jobId}`)).status).toBe(200);
  }, 60_000);
});
