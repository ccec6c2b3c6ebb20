import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { WordingSchema } from '#api/wording.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { arrivedOf, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('wording');
});
afterAll(() => server.close());

let colours = 0;
async function handIn(as: Who = 'mara'): Promise<string> {
  colours += 1;
  const background = { r: colours * 9, g: 90, b: 120 };
  const bytes = await sharp({ create: { width: 600, height: 400, channels: 3, background } })
    .jpeg()
    .toBuffer();
  return arrivedOf(await server.handIn(bytes, 'marsh.jpg', as)).asset.id;
}

const round = async (query: string, as: Who = 'mara') =>
  v.parse(WordingSchema, (await server.ask(`/api/wording?${query}`, { as })).body).items;

describe('a wording round', () => {
  it('goes through the pictures of a page without words, in their order, and says where each is heard', async () => {
    const [one, two] = [await handIn(), await handIn()];
    const made = await server.ask('/api/pages', {
      method: 'POST',
      body: { title: 'Herons', targetId: 'reserve', wants: [], due: '2026-01-01' },
    });
    const { id } = v.parse(v.object({ id: v.string() }), made.body);
    const text = {
      type: 'paragraph',
      attrs: { id: 'p' },
      content: [{ type: 'text', text: 'It rained' }],
    } as const;
    const doc: PageDoc = {
      ...emptyPage('Herons'),
      blocks: [
        { ...text, content: [...text.content] },
        { type: 'placement', attrs: newPlacement('a', two) },
        { type: 'placement', attrs: newPlacement('b', one) },
        { type: 'placement', attrs: newPlacement('c', two) },
      ],
    };
    await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 });
    const items = await round(`place=page&page=${id}`);
    expect(items.map(({ asset }) => asset.id)).toEqual([two, one]);
    expect(items[0]?.place).toMatchObject({ title: 'Herons', before: 'It rained.', after: '' });
    expect((await round('')).map(({ asset }) => asset.id)).toEqual([two, one]);

    await server.ask(`/api/assets/${two}`, {
      method: 'PATCH',
      version: 1,
      body: { label: { alt: { kind: 'text', text: 'Rain over the marsh.' } } },
    });
    expect((await round(`place=page&page=${id}`)).map(({ asset }) => asset.id)).toEqual([one]);
    expect((await round(`place=page&page=${id}&language=de`)).map(({ asset }) => asset.id)).toEqual([
      two,
      one,
    ]);
    expect((await round(`place=page&page=${id}&all=yes`)).length).toBe(2);
  });

  it('shows an editor what a contributor proposes, until it is taken or left', async () => {
    const id = await handIn();
    const propose = (text: string) =>
      server.ask(`/api/assets/${id}/proposals`, {
        method: 'POST',
        as: 'joss',
        body: { alt: { kind: 'text', text }, extendedDescription: '' },
      });
    expect((await propose('Marsh.')).status).toBe(204);
    await propose('The marsh in blue.');
    const of = async (as: Who) =>
      (await round('place=shelf', as)).find(({ asset }) => asset.id === id)?.proposal;
    const proposal = await of('mara');
    expect(proposal).toMatchObject({ by: 'joss', alt: { kind: 'text', text: 'The marsh in blue.' } });
    // Pages are not read by contributors: they go through the shelf.
    expect((await round('place=pages', 'joss')).every(({ place }) => place === null)).toBe(true);
    expect((await server.ask(`/api/proposals/${proposal?.id}`, { method: 'DELETE' })).status).toBe(204);
    expect(await of('mara')).toBeNull();
  });

  it('lets nobody turn down the proposal of another who may not change the piece', async () => {
    const id = await handIn();
    await server.ask(`/api/assets/${id}/proposals`, {
      method: 'POST',
      as: 'piet',
      body: { alt: { kind: 'text', text: 'Marsh.' }, extendedDescription: '' },
    });
    const [item] = (await round('place=shelf')).filter(({ asset }) => asset.id === id);
    const refused = await server.ask(`/api/proposals/${item?.proposal?.id}`, {
      method: 'DELETE',
      as: 'joss',
    });
    expect(refused.status).toBe(403);
  });
});
