import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AssetSchema } from '#api/assets.ts';
import { DeskSchema } from '#api/desk.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import { NO_TERMS } from '#core/rights/terms.ts';
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

  it('says what soon may be used no more, and what no more may', async () => {
    const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
    const agreed = async (title: string, label: LabelPatch) => {
      const id = await handIn(`#${title.length.toString(16).padStart(2, '4')}a`, 'mara');
      const patch = { creator: 'Ines Okonjo', licence: 'permission' as const, title, ...label };
      const { version } = v.parse(AssetSchema, (await server.ask(`/api/assets/${id}`)).body);
      await server.ask(`/api/assets/${id}`, { method: 'PATCH', body: { label: patch }, version });
      const made = await server.ask('/api/pages', {
        method: 'POST',
        body: { title, targetId: 'reserve', wants: [], due: null },
      });
      const { id: pageId } = v.parse(v.object({ id: v.string() }), made.body);
      const doc: PageDoc = {
        ...emptyPage(title),
        tray: [id],
        blocks: [{ type: 'placement', attrs: newPlacement('one', id) }],
      };
      await server.ask(`/api/pages/${pageId}`, { method: 'PUT', body: { doc }, version: 1 });
    };
    await agreed('Soon over', { terms: { ...NO_TERMS, ends: inDays(5) } });
    await agreed('Over since a day', { terms: { ...NO_TERMS, ends: inDays(-2) } });
    await agreed('For a long time yet', { terms: { ...NO_TERMS, ends: inDays(90) } });
    const { errands } = await desk('mara');
    const on = (subject: string) =>
      errands.filter((errand) => errand.subject === subject && errand.kind === 'rights');
    expect(on('Soon over')).toMatchObject([
      {
        after: expect.stringMatching(/^may be used until \d+ \w+ \d{4}\.$/),
        detail: 'Soon over: 5 days are left. Renew it, put another in its place, or take it off.',
        due: null,
      },
    ]);
    expect(on('Over since a day')).toMatchObject([
      { after: 'may not be used any more.', action: 'Look at it' },
    ]);
    expect(on('For a long time yet')).toEqual([]);
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

  it('has an errand given to somebody with a note, first with them and last with others', async () => {
    const put = (id: string, body: object, as: Who = 'mara') =>
      server.ask(`/api/desk/errands/${id}`, { as, method: 'PUT', body });
    const { errands, colleagues } = await desk('mara');
    const piet = colleagues.find(({ name }) => name === 'piet');
    const last = errands.filter(({ isGivable }) => isGivable).at(-1);
    if (!piet || !last) throw new Error('Nothing can be given.');
    expect((await put(last.id, { to: piet.id, note: ' Before Friday. ' })).status).toBe(204);
    const [first] = (await desk('piet')).errands;
    expect(first).toMatchObject({ id: last.id, given: { by: { name: 'mara' }, note: 'Before Friday.' } });
    expect((await desk('mara')).errands.at(-1)).toMatchObject({ id: last.id, given: { to: piet } });

    const joss = (await server.ask('/api/me', { as: 'joss' })).body as { id: string };
    expect(colleagues.some(({ id }) => id === joss.id)).toBe(false);
    expect((await put(last.id, { to: joss.id, note: '' })).status).toBe(422);
    expect((await put('comp-nowhere', { to: piet.id, note: '' })).status).toBe(404);
    expect((await put(last.id, { to: piet.id, note: '' }, 'joss')).status).toBe(403);
    expect((await server.ask(`/api/desk/errands/${last.id}`, { as: 'mara', method: 'DELETE' })).status).toBe(
      204,
    );
    expect((await desk('piet')).errands.every(({ given }) => given === null)).toBe(true);
  });
});
