import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Asset, AssetCountSchema, AssetListSchema, AssetSchema, FolderListSchema } from '#api/assets.ts';
import { DeskSchema } from '#api/desk.ts';
import { OPERATIONS } from '#api/operations.ts';
import { PageSchema, PreviewSchema } from '#api/pages.ts';
import { NamedPeopleSchema } from '#api/people.ts';
import { LedgerSchema } from '#api/rights.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import type { SeenBy } from '#core/rights/terms.ts';
import { arrivedOf, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('seen');
});
afterAll(() => server.close());

const picture = (shade: number) =>
  sharp({ create: { width: 600, height: 400, channels: 3, background: { r: shade, g: 90, b: 40 } } })
    .jpeg()
    .toBuffer();

/** A piece that Piet, who keeps the rights, brought in, seen as he says. */
async function held(shade: number, seenBy: SeenBy): Promise<Asset> {
  const { asset } = arrivedOf(await server.handIn(await picture(shade), `heron-${shade}.jpg`, 'piet'));
  return sayWho(asset, seenBy);
}

async function sayWho(asset: Asset, seenBy: SeenBy): Promise<Asset> {
  const label = { title: 'Kept apart', licence: 'own', terms: { ...asset.label.terms, seenBy } };
  const { version } = asset;
  const answer = await server.ask(`/api/assets/${asset.id}`, {
    as: 'piet',
    method: 'PATCH',
    version,
    body: { label },
  });
  return v.parse(AssetSchema, answer.body);
}

const idsOf = async (path: string, as: Who) =>
  v.parse(AssetListSchema, (await server.ask(path, { as })).body).assets.map(({ id }) => id);

async function opens(address: string): Promise<number> {
  const response = await fetch(address);
  await response.arrayBuffer();
  return response.status;
}

describe('a piece that only a group may see', () => {
  it('is not there for others, by whatever door they ask', async () => {
    const { id } = await held(10, { who: 'group', people: [] });
    const doors = Object.keys(OPERATIONS).filter((key) => key.includes('/assets/{id}'));
    expect(doors.length).toBeGreaterThan(15);
    for (const door of doors) {
      const [method = '', path = ''] = door.split(' ');
      const answer = await server.ask(
        `/api${path}`.replace('{id}', id).replace('{other}', id),
        method === 'get' ? {} : { method: method.toUpperCase(), body: {}, version: 1 },
      );
      expect([door, answer.status]).toEqual([door, 404]);
    }
  });

  it('is on no list, in no count and in no ledger of theirs', async () => {
    const { id } = await held(20, { who: 'group', people: [] });
    for (const [as, isThere] of [
      ['piet', true],
      ['sunniva', true],
      ['mara', false],
      ['joss', false],
    ] as const) {
      expect([as, (await idsOf('/api/assets', as)).includes(id)]).toEqual([as, isThere]);
      expect((await idsOf('/api/assets?words=apart', as)).includes(id)).toBe(isThere);
      const desk = v.parse(DeskSchema, (await server.ask('/api/desk', { as })).body);
      expect(desk.recent.some((one) => one.id === id)).toBe(isThere);
    }
    const count = async (as: Who) =>
      v.parse(AssetCountSchema, (await server.ask('/api/assets/count?words=apart', { as })).body);
    expect((await count('piet')).found).toBeGreaterThan(0);
    expect((await count('mara')).found).toBe(0);
    // Nor are its words offered for those that were meant.
    expect((await count('mara')).readAs).toBeNull();
    const ledger = async (as: Who) =>
      v
        .parse(LedgerSchema, (await server.ask('/api/rights?matter=all&place=anywhere', { as })).body)
        .rows.map(({ asset }) => asset.id);
    expect(await ledger('piet')).toContain(id);
    expect(await ledger('mara')).not.toContain(id);
    const csv = await server.ask('/api/rights.csv?matter=all&place=anywhere');
    expect(String(csv.body)).not.toContain(id);
    const found = await server.ask('/api/rights/lookups', {
      method: 'POST',
      body: { ids: [id], files: [] },
    });
    expect(found.body).toEqual([]);
    const [folder] = v.parse(FolderListSchema, (await server.ask('/api/folders', { as: 'joss' })).body);
    expect(folder?.pieces ?? 0).toBe(0);
  });

  it('gives nobody its words to type', async () => {
    const apart = await held(70, { who: 'group', people: [] });
    const open = await held(80, { who: 'house' });
    for (const asset of [apart, open])
      await server.ask(`/api/assets/${asset.id}`, {
        as: 'piet',
        method: 'PATCH',
        version: asset.version,
        body: {
          label: {
            keywords: ['Reed bed', asset === apart ? 'reed secret' : 'reed cutter'],
            place: 'The Réed Wall',
          },
        },
      });
    const offered = async (field: string, begins: string) =>
      (await server.ask(`/api/in-use?field=${field}&begins=${encodeURIComponent(begins)}`)).body;
    expect(await offered('keywords', 'reed')).toEqual(['Reed bed', 'reed cutter']);
    expect(await offered('keywords', 'BED')).toEqual(['Reed bed']);
    expect(await offered('place', 'ree')).toEqual(['The Réed Wall']);
    expect(await offered('keywords', '')).toEqual([]);
    expect((await server.ask('/api/in-use?field=licence&begins=cc')).status).toBe(422);
  });

  it('is there for the people of the group', async () => {
    const names = await server.ask('/api/people/names', { as: 'piet' });
    const people = v.parse(NamedPeopleSchema, names.body);
    const mara = people.find(({ role }) => role === 'editor')?.id ?? '';
    const { id } = await held(30, { who: 'group', people: [mara] });
    expect(await idsOf('/api/assets', 'mara')).toContain(id);
    expect((await server.ask(`/api/assets/${id}`)).status).toBe(200);
    expect((await server.ask(`/api/assets/${id}`, { as: 'joss' })).status).toBe(404);
  });

  it('is opened by no address that was made before it was kept apart, or for another group', async () => {
    const open = await held(40, { who: 'house' });
    expect(await opens(open.thumb)).toBe(200);
    const kept = await sayWho(open, { who: 'group', people: [] });
    // What was sent this very moment may be sent once more; see the cache of cuts.
    expect(await opens(open.view)).toBe(404);
    expect(await opens(kept.thumb)).toBe(200);
    const wider = await sayWho(kept, { who: 'group', people: ['somebody'] });
    expect(await opens(kept.view)).toBe(404);
    expect(await opens(wider.thumb)).toBe(200);
  });

  it('is missing from a page for those who may not see it, on its sheet and in its proof', async () => {
    const { id } = await held(50, { who: 'group', people: [] });
    const made = await server.ask('/api/pages', {
      as: 'piet',
      method: 'POST',
      body: { title: 'Kept', targetId: 'reserve', wants: [], due: null },
    });
    const page = v.parse(v.object({ id: v.string() }), made.body).id;
    const doc = {
      ...emptyPage('Kept'),
      tray: [id],
      blocks: [{ type: 'placement' as const, attrs: newPlacement('one', id) }],
    };
    await server.ask(`/api/pages/${page}`, { as: 'piet', method: 'PUT', version: 1, body: { doc } });
    const pieces = async (as: Who) =>
      v.parse(PageSchema, (await server.ask(`/api/pages/${page}`, { as })).body).pieces.length;
    expect([await pieces('piet'), await pieces('mara')]).toEqual([1, 0]);
    const preview = async (as: Who) => {
      const { address } = v.parse(
        PreviewSchema,
        (await server.ask(`/api/pages/${page}/preview`, { as })).body,
      );
      return (await fetch(address)).text();
    };
    expect(await preview('piet')).toContain('<img');
    expect(await preview('mara')).not.toContain('<img');
    // What only the house may see goes out to no reader, whoever sends it.
    const findings = async (as: Who) =>
      v
        .parse(
          v.array(v.object({ code: v.string() })),
          (await server.ask(`/api/pages/${page}/findings`, { as })).body,
        )
        .map(({ code }) => code);
    expect(await findings('piet')).toContain('use-not-allowed');
    expect(await findings('mara')).toContain('piece-missing');
    expect((await server.ask(`/api/pages/${page}/take-away`, { as: 'piet', method: 'POST' })).status).toBe(
      409,
    );
  });

  it('is not handed out to who brings the very same file, and they are told so', async () => {
    await held(60, { who: 'group', people: [] });
    const again = await server.handIn(await picture(60), 'mine.jpg', 'joss');
    expect(again.status).toBe(403);
    expect(JSON.stringify(again.body)).toContain('for a group of the house');
  });
});
