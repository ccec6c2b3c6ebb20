import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PageSchema } from '#api/pages.ts';
import { PartChangedSchema, PartListSchema, PartSchema } from '#api/parts.ts';
import type { InPart } from '#core/page/blocks/kept-part/schema.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { contentFor } from '#core/page/kept-parts.ts';
import { emptyPage } from '#core/page/model.ts';
import { arrivedOf, startTestServer, type TestServer } from '../testing.ts';

const IdSchema = v.object({ id: v.string() });

let server: TestServer;
let assetId: string;
let otherId: string;

beforeAll(async () => {
  server = await startTestServer('parts');
  const picture = (background: string) =>
    sharp({ create: { width: 800, height: 500, channels: 3, background } })
      .jpeg()
      .toBuffer();
  assetId = arrivedOf(await server.handIn(await picture('#597'), 'marsh.jpg')).asset.id;
  otherId = arrivedOf(await server.handIn(await picture('#975'), 'dyke.jpg')).asset.id;
});
afterAll(() => server.close());

const hours = (words: string): InPart[] => [
  { type: 'paragraph', attrs: { id: 'p' }, content: [{ type: 'text', text: words }] },
  { type: 'placement', attrs: newPlacement('pic', assetId) },
];

async function keep(name: string, blocks: InPart[]): Promise<string> {
  const made = await server.ask('/api/parts', { method: 'POST', body: { name, blocks } });
  return v.parse(IdSchema, made.body).id;
}

/** A page with the part on it, as it is kept or with other words. */
async function pageWith(part: string, blocks: readonly InPart[]): Promise<string> {
  const body = { title: 'Walks', targetId: 'reserve', wants: [] };
  const { id } = v.parse(IdSchema, (await server.ask('/api/pages', { method: 'POST', body })).body);
  const doc = {
    ...emptyPage('Walks'),
    blocks: [{ type: 'keptPart', attrs: { id: 'here', part }, content: contentFor(blocks, 'here') }],
  };
  const saved = await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 });
  expect(saved.status).toBe(200);
  return id;
}

const read = async (id: string) => v.parse(PartSchema, (await server.ask(`/api/parts/${id}`)).body);
const pageOf = async (id: string) => v.parse(PageSchema, (await server.ask(`/api/pages/${id}`)).body);
const change = (id: string, version: number, name: string, blocks: readonly InPart[]) =>
  server.ask(`/api/parts/${id}`, { method: 'PUT', body: { name, blocks }, version });

describe('a kept part', () => {
  it('is kept with its pieces, listed with its pages, and shown with which changed it for themselves', async () => {
    const part = await keep('Opening hours', hours('Nine to five.'));
    const [same, own] = [
      await pageWith(part, hours('Nine to five.')),
      await pageWith(part, hours('Closed.')),
    ];
    const { pages, pieces, ...kept } = await read(part);
    expect(kept).toMatchObject({ name: 'Opening hours', version: 1, blocks: hours('Nine to five.') });
    expect(pieces.map(({ id }) => id)).toEqual([assetId]);
    expect(new Set(pages.map(({ id, isOwn }) => `${id} ${isOwn}`))).toEqual(
      new Set([`${same} false`, `${own} true`]),
    );
    const list = v.parse(PartListSchema, (await server.ask('/api/parts')).body);
    expect(list.parts.find(({ id }) => id === part)).toMatchObject({ pages: 2, updatedBy: 'mara' });
  });

  it('is changed on every page at once, but where a page changed it for itself', async () => {
    const part = await keep('Call', hours('Come along.'));
    const pages = await Promise.all([1, 2, 3].map(() => pageWith(part, hours('Come along.'))));
    const own = await pageWith(part, hours('Stay away.'));
    const done = await change(part, 1, 'Call to come', hours('Come in boots.'));
    expect(v.parse(PartChangedSchema, done.body)).toEqual({ version: 2, changed: 3, own: 1 });
    for (const id of pages) {
      const page = await pageOf(id);
      expect(page.version).toBe(3);
      expect(page.doc.blocks).toMatchObject([{ content: contentFor(hours('Come in boots.'), 'here') }]);
      expect(page.doc.tray).toEqual([assetId]);
    }
    expect((await pageOf(own)).doc.blocks).toMatchObject([
      { content: contentFor(hours('Stay away.'), 'here') },
    ]);
    const late = await change(part, 1, 'Call', hours('Late.'));
    expect(late.status).toBe(412);
    expect(await read(part)).toMatchObject({ name: 'Call to come', version: 2 });
  });

  it('of nothing, of too much and without a name is refused', async () => {
    const none = await server.ask('/api/parts', { method: 'POST', body: { name: 'Nothing', blocks: [] } });
    const much = Array.from({ length: 101 }, (_, at) => ({ type: 'rule', attrs: { id: `r${at}` } }));
    const large = await server.ask('/api/parts', { method: 'POST', body: { name: 'Much', blocks: much } });
    const nameless = await server.ask('/api/parts', {
      method: 'POST',
      body: { name: ' ', blocks: hours('x') },
    });
    expect([none.status, large.status, nameless.status]).toEqual([422, 422, 422]);
    expect((await server.ask('/api/parts', { as: 'joss' })).status).toBe(403);
  });

  it('names the new piece where one is replaced everywhere, and the old one again when that is taken back', async () => {
    const part = await keep('With a picture', hours('Nine to five.'));
    const page = await pageWith(part, hours('Nine to five.'));
    const replaced = await server.ask(`/api/assets/${assetId}/replace`, {
      method: 'POST',
      body: { by: otherId },
    });
    expect(replaced.status).toBe(200);
    const pieceOf = async () => {
      const [, placed] = (await read(part)).blocks;
      return placed?.type === 'placement' ? placed.attrs.asset : null;
    };
    expect(await pieceOf()).toBe(otherId);
    expect((await read(part)).pages).toMatchObject([{ id: page, isOwn: false }]);
    const { at } = v.parse(v.looseObject({ at: v.string() }), replaced.body);
    await server.ask(`/api/assets/${assetId}/replace/take-back`, { method: 'POST', body: { at } });
    expect(await pieceOf()).toBe(assetId);
  });
});
