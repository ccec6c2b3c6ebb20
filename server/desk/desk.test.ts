import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DeskSchema } from '#api/desk.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { arrivedOf, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('desk');
});
afterAll(() => server.close());

const desk = async (as: Who) => v.parse(DeskSchema, (await server.ask('/api/desk', { as })).body);

async function handIn(colour: string, as: Who): Promise<string> {
  const bytes = await sharp({ create: { width: 900, height: 600, channels: 3, background: colour } })
    .jpeg()
    .toBuffer();
  return arrivedOf(await server.handIn(bytes, 'marsh.jpg', as)).asset.id;
}

describe('the Desk', () => {
  it('is empty where nothing waits', async () => {
    expect(await desk('mara')).toMatchObject({ errands: [], pages: [], recent: [] });
  });

  it('says what a page waits for, and where it is done', async () => {
    const asset = await handIn('#597', 'mara');
    const want = {
      id: 'w',
      purpose: 'Portrait of the warden',
      shape: 'portrait',
      leastWidth: 800,
      filledBy: null,
    };
    const made = await server.ask('/api/pages', {
      method: 'POST',
      body: { title: 'Bitterns', targetId: 'reserve', wants: [want], due: '2026-12-24' },
    });
    const { id } = v.parse(v.object({ id: v.string() }), made.body);
    const doc: PageDoc = {
      ...emptyPage('Bitterns'),
      wants: [
        { id: 'w', purpose: 'Portrait of the warden', shape: 'portrait', leastWidth: 800, filledBy: null },
      ],
      tray: [asset],
      blocks: [{ type: 'placement', attrs: newPlacement('one', asset) }],
    };
    await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 });
    const { errands, pages } = await desk('mara');
    expect(errands.map((errand) => errand.kind).sort()).toEqual(['rights', 'want', 'words']);
    expect(errands.find((errand) => errand.kind === 'words')?.address).toBe(
      `/pages/${id}?piece=${asset}&row=words`,
    );
    expect(errands.find((errand) => errand.kind === 'want')?.detail).toBe('Portrait of the warden.');
    expect(pages[0]?.stations.map(({ id: station, done, of }) => `${station} ${done}/${of}`)).toEqual([
      'wanted 0/1',
      'cleared 0/1',
      'prepared 0/1',
      'worded 0/1',
      'placed 1/1',
    ]);
    expect(pages[0]?.stops).toBeGreaterThan(0);
    expect(pages[0]?.due).toBe('2026-12-24');
  });

  it('says what a contributor handed in, to those who may clear it', async () => {
    await handIn('#a37', 'joss');
    await handIn('#37a', 'joss');
    const { errands } = await desk('piet');
    expect(errands.find((errand) => errand.kind === 'handed-in')).toMatchObject({
      before: 'joss handed in',
      subject: '2 pieces',
      count: 2,
    });
    expect((await desk('joss')).errands).toEqual([]);
    expect((await desk('joss')).pages).toEqual([]);
  });
});
