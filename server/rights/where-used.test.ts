import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type WhereUsedQuery, WhereUsedSchema } from '#api/rights.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import { arrivedOf, heldHeron, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('where_used');
});
afterAll(() => server.close());

const used = async (of: WhereUsedQuery['of'], value: string, as: Who = 'mara') =>
  v.parse(WhereUsedSchema, (await server.ask(`/api/where-used?of=${of}&value=${value}`, { as })).body);

async function pageWith(title: string, ids: readonly string[]): Promise<string> {
  const body = { title, targetId: 'reserve', wants: [] };
  const made = await server.ask('/api/pages', { method: 'POST', body });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const blocks = ids.map((asset, at) => ({ type: 'placement', attrs: newPlacement(`p${at}`, asset) }));
  const doc = { ...emptyPage(title), tray: ids, blocks };
  await server.ask(`/api/pages/${id}`, { method: 'PUT', version: 1, body: { doc } });
  return id;
}

it('says on which pages stands what has a licence, or was brought in by somebody', async () => {
  const heron = await heldHeron(server);
  const plain = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#345' } })
    .jpeg()
    .toBuffer();
  const sluice = arrivedOf(await server.handIn(plain, 'sluice.jpg', 'piet')).asset.id;
  const [one, both] = [await pageWith('One', [heron]), await pageWith('Two', [heron, sluice])];
  expect(await used('licence', 'cc-by-4.0')).toEqual({
    pieces: 1,
    pages: [
      { id: one, title: 'One', target: expect.any(String), isOut: false, pieces: 1 },
      { id: both, title: 'Two', target: expect.any(String), isOut: false, pieces: 1 },
    ],
  });
  expect((await used('person', 'piet')).pages).toMatchObject([{ id: both, pieces: 1 }]);
  expect(await used('licence', 'cc0-1.0')).toEqual({ pieces: 0, pages: [] });
  expect((await server.ask('/api/where-used?of=licence&value=cc0-1.0', { as: 'joss' })).status).toBe(403);
});

it('counts no piece that only a group may see', async () => {
  const other = await sharp({ create: { width: 600, height: 400, channels: 3, background: '#543' } })
    .jpeg()
    .toBuffer();
  const { asset } = arrivedOf(await server.handIn(other, 'hidden.jpg', 'sunniva'));
  const before = (await used('person', 'sunniva')).pieces;
  const terms = { ...asset.label.terms, seenBy: { who: 'group', people: ['sunniva'] } };
  await server.ask(`/api/assets/${asset.id}`, {
    as: 'sunniva',
    method: 'PATCH',
    version: asset.version,
    body: { label: { terms } },
  });
  expect((await used('person', 'sunniva')).pieces).toBe(before - 1);
  expect((await used('person', 'sunniva', 'sunniva')).pieces).toBe(before);
});
