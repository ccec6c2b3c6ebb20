import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AssetSchema, type MadeCuts, MadeCutsSchema } from '#api/assets.ts';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { cutsOfPage } from '#core/page/write.ts';
import { readPage } from '../pages/store.ts';
import { arrivedOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { ensureCut } from './cut-store.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('made_cuts');
});
afterAll(() => server.close());

const made = async (id: string): Promise<MadeCuts> =>
  v.parse(MadeCutsSchema, (await server.ask(`/api/assets/${id}/cuts`)).body);

async function handIn(background = '#3a6b52') {
  const picture = sharp({ create: { width: 900, height: 600, channels: 3, background } });
  return arrivedOf(await server.handIn(await picture.jpeg().toBuffer(), 'reed.jpg', 'mara')).asset;
}

async function pageWith(assetId: string): Promise<string> {
  const body = { title: 'Reed days', targetId: 'reserve', wants: [], due: null };
  const answer = await server.ask('/api/pages', { method: 'POST', body });
  const { id } = v.parse(v.object({ id: v.string() }), answer.body);
  const doc: PageDoc = {
    ...emptyPage('Reed days', []),
    blocks: [{ type: 'placement', attrs: newPlacement('one', assetId) }],
  };
  await server.ask(`/api/pages/${id}`, { method: 'PUT', version: 1, body: { doc } });
  return id;
}

/** Makes every cut that a page needs, as taking it away does, and gives their keys. */
async function makeAll(pageId: string): Promise<readonly string[]> {
  const page = await readPage(server.context, pageId, 'house');
  const [source] = page.assets;
  if (!source) throw new Error('no piece on the page');
  const keys: string[] = [];
  for (const { recipe, size, format, quality } of cutsOfPage(page.doc, page)) {
    const { key } = await ensureCut(server.context, source, recipe, size.width, format, quality);
    keys.push(key);
  }
  return keys;
}

const throwAway = (id: string, as: Who = 'mara') =>
  server.ask(`/api/assets/${id}/cuts`, { method: 'DELETE', as });

describe('who reads no pages', () => {
  it('is told on how many a piece stands, and not what they are called', async () => {
    const asset = await handIn('#8a6b52');
    await makeAll(await pageWith(asset.id));
    const seen = async (as: Who) => {
      const [one, list, cuts] = await Promise.all(
        [`/api/assets/${asset.id}`, '/api/assets', `/api/assets/${asset.id}/cuts`].map(
          async (path) => (await server.ask(path, { as })).body,
        ),
      );
      const { usedOn } = v.parse(AssetSchema, one);
      return {
        usedOn,
        onPages: v.parse(MadeCutsSchema, cuts).onPages.length,
        all: JSON.stringify([one, list, cuts]),
      };
    };
    const [mara, joss] = [await seen('mara'), await seen('joss')];
    expect(mara.usedOn).toMatchObject([{ title: 'Reed days' }]);
    expect(joss.usedOn).toMatchObject([{ title: null }]);
    expect(joss.onPages).toBe(mara.onPages);
    expect(mara.all).toContain('Reed days');
    expect(joss.all).not.toContain('Reed days');
  });
});

describe('the cuts that were made of a piece', () => {
  it('are told by the page that needs them, and kept while it does', async () => {
    const asset = await handIn();
    expect((await made(asset.id)).onPages).toEqual([]);
    const pageId = await pageWith(asset.id);
    const keys = await makeAll(pageId);
    const told = await made(asset.id);
    expect(told.onPages).toHaveLength(keys.length);
    expect(told.onPages.every(({ pages, bytes }) => pages[0] === 'Reed days' && bytes > 0)).toBe(true);
    expect(told.onScreens.count).toBeGreaterThan(0);
    expect(told.unused).toEqual({ count: 0, bytes: 0 });
    expect((await throwAway(asset.id)).status).toBe(200);
    for (const key of keys) expect(await server.context.storage.has(key)).toBe(true);
  });

  it('are of no use once the piece is prepared anew; then they go, rows and files, and are made again when needed', async () => {
    const asset = await handIn();
    const pageId = await pageWith(asset.id);
    const keys = await makeAll(pageId);
    const prep = { ...AS_IT_CAME, turn: 90 };
    await server.ask(`/api/assets/${asset.id}`, { method: 'PATCH', version: asset.version, body: { prep } });
    const turned = await made(asset.id);
    expect(turned.onPages).toEqual([]);
    expect(turned.unused.count).toBe(keys.length);
    expect(turned.unused.bytes).toBeGreaterThan(0);
    await throwAway(asset.id);
    expect((await made(asset.id)).unused).toEqual({ count: 0, bytes: 0 });
    for (const key of keys) expect(await server.context.storage.has(key)).toBe(false);
    const again = await makeAll(pageId);
    for (const key of again) expect(await server.context.storage.has(key)).toBe(true);
  });

  it('are thrown away by those who answer for pieces, and by nobody else', async () => {
    const asset = await handIn();
    expect((await throwAway(asset.id, 'joss')).status).toBe(403);
    expect((await throwAway('00000000-0000-4000-8000-000000000000')).status).toBe(404);
  });
});
