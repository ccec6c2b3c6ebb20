import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HistorySchema, JudgedUsesSchema, LedgerSchema } from '#api/rights.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { placementsOf } from '#core/page/walk.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import { readLedger } from '#core/rights/ledger-file.ts';
import { dayIn, NO_TERMS, type Terms } from '#core/rights/terms.ts';
import { pages } from '../db/schema.ts';
import { tellSent } from '../deliver/take-away.ts';
import { readPage } from '../pages/store.ts';
import { findAsset } from '../shelf/change.ts';
import { arrivedOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { doOnTheDay } from './on-the-day.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('rights');
});
afterAll(() => server.close());

const DAY_MILLIS = 86_400_000;
const dayAt = (days: number) => dayIn('UTC', new Date(Date.now() + days * DAY_MILLIS));
let colours = 0;

async function handIn(said: LabelPatch, as: Who = 'mara'): Promise<string> {
  colours += 1;
  const background = { r: colours * 3, g: 120, b: 90 };
  const bytes = await sharp({ create: { width: 900, height: 600, channels: 3, background } })
    .jpeg()
    .toBuffer();
  const { id, version } = arrivedOf(await server.handIn(bytes, 'marsh.jpg')).asset;
  const { status } = await server.ask(`/api/assets/${id}`, {
    method: 'PATCH',
    body: { label: said },
    version,
    as,
  });
  expect(status).toBe(200);
  return id;
}

const agreed = (said: Partial<Terms>): LabelPatch => ({
  licence: 'agency',
  source: 'Brackwater Pictures',
  sourceId: '88-4420',
  terms: { ...NO_TERMS, ...said },
});

async function pageWith(title: string, ids: readonly string[], targetId = 'reserve'): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title, targetId, wants: [], due: null },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const doc: PageDoc = {
    ...emptyPage(title),
    tray: [...ids],
    blocks: ids.map((asset, at) => ({ type: 'placement', attrs: newPlacement(`place-${at}`, asset) })),
  };
  await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 });
  return id;
}

const ledger = async (query: string) =>
  v.parse(LedgerSchema, (await server.ask(`/api/rights?${query}`)).body);
const found = async (query: string) => (await ledger(query)).rows.map(({ asset }) => asset.id);

async function placed(pageId: string): Promise<readonly string[]> {
  return placementsOf((await readPage(server.context, pageId, 'house')).doc).map(({ asset }) => asset);
}

describe('days that are far off, and such as there are not', () => {
  it('before 1900 and after 2100 are kept, asked for, taken away and brought back as they are', async () => {
    const terms = { begins: '1899-12-31', ends: '2150-06-30' };
    const id = await handIn({ ...agreed(terms), dateCreated: '1871-05-01', title: 'Far off' });
    await pageWith('Far off', [id]);
    const { rows } = await ledger('matter=ends&within=any&place=pages');
    expect(rows.map(({ asset }) => asset.id)).toContain(id);
    expect((await found('matter=waits&within=366&place=pages')).includes(id)).toBe(false);
    const csv = await server.ask('/api/rights.csv?matter=all&place=anywhere');
    const read = readLedger(new TextEncoder().encode(String(csv.body)));
    const line = read.kind === 'read' ? read.lines.find((one) => one.id === id) : undefined;
    expect(line).toMatchObject({ label: { dateCreated: '1871-05-01' }, terms, faults: [] });
    const uses = v.parse(JudgedUsesSchema, (await server.ask(`/api/assets/${id}/uses`)).body);
    expect(uses[0]).toMatchObject({ verdict: 'allowed' });
    expect(uses[0]?.says).toContain('until 30 June 2150');
  });

  it.each(['2026-02-30', '2026-13-01', '0000-00-00', '31.12.2026', '99999-01-01'])(
    'as %s are refused wherever a day is said',
    async (day) => {
      const id = await handIn({ title: 'A day' });
      const { version } = await findAsset(server.context, id);
      for (const label of [
        { dateCreated: day },
        { terms: { ...NO_TERMS, ends: day } },
        { terms: { ...NO_TERMS, shownFrom: day } },
      ])
        expect(
          (await server.ask(`/api/assets/${id}`, { method: 'PATCH', version, body: { label } })).status,
        ).toBe(422);
      const page = { title: 'A page', targetId: 'reserve', wants: [], due: day };
      expect((await server.ask('/api/pages', { method: 'POST', body: page })).status).toBe(422);
    },
  );
});

describe('the ledger of rights', () => {
  it('says what ends soonest, where it stands, and what went out', async () => {
    const [soon, later, unused] = [
      await handIn(agreed({ ends: dayAt(16) })),
      await handIn(agreed({ ends: dayAt(60) })),
      await handIn(agreed({ ends: dayAt(10) })),
    ];
    const page = await pageWith('The boardwalk reopens', [later, soon]);
    expect(await found('matter=ends')).toEqual([soon, later]);
    expect(await found('matter=ends&within=30')).toEqual([soon]);
    expect(await found('matter=ends&place=nowhere')).toEqual([unused]);
    expect(await found('matter=ends&place=out')).toEqual([]);
    await tellSent(server.context, await readPage(server.context, page, 'house'), 'mara', 'as a ZIP');
    expect(await found('matter=ends&place=out')).toEqual([soon, later]);
    const { rows } = await ledger('matter=ends&within=30');
    expect(rows[0]?.pages).toEqual([{ id: page, title: 'The boardwalk reopens', isOut: true }]);
  });

  it('is asked by maker, source, licence and what is lacking', async () => {
    const heron = await handIn({ licence: 'cc-by-4.0', creator: 'Ines Okonjo', source: 'Commonfield' });
    const cutters = await handIn({
      licence: 'own',
      creator: 'Joss Imrie',
      terms: { ...NO_TERMS, consent: 'missing' },
    });
    await pageWith('Reed-cutting days', [heron, cutters]);
    expect(await found('matter=all&maker=okonjo')).toEqual([heron]);
    expect(await found('matter=all&source=common')).toEqual([heron]);
    expect(await found('matter=all&licence=own')).toEqual([cutters]);
    expect(await found('matter=consent')).toEqual([cutters]);
    expect(await found('matter=owes-credit&source=common')).toEqual([heron]);
    expect(await found('matter=all&maker=%25')).toEqual([]);
  });

  it('goes on where it ended, and tells what is no such place', async () => {
    const first = await ledger('matter=all&place=anywhere&order=name');
    const counted = await server.ask('/api/rights/count?matter=all&place=anywhere');
    expect(counted.body).toEqual({ found: first.rows.length });
    expect((await server.ask('/api/rights?cursor=nonsense')).status).toBe(422);
  });

  it('is not shown to those who say no rights', async () => {
    expect((await server.ask('/api/rights', { as: 'joss' })).status).toBe(403);
  });

  it('judges each use of a piece, and keeps who said what', async () => {
    const id = await handIn(agreed({ ends: dayAt(-1) }), 'piet');
    await pageWith('Hides', [id]);
    const uses = v.parse(JudgedUsesSchema, (await server.ask(`/api/assets/${id}/uses`)).body);
    expect(uses).toMatchObject([{ title: 'Hides', isOut: false, verdict: 'not-allowed' }]);
    expect(uses[0]?.says).toContain('What was agreed ended on');
    const history = v.parse(HistorySchema, (await server.ask(`/api/assets/${id}/history`)).body);
    expect(history.map(({ what }) => what)).toEqual(['changed its label', 'taken in']);
    expect(history[0]?.fields).toContainEqual({ field: 'sourceId', now: '88-4420' });
  });
});

describe('the ledger as a file', () => {
  it('goes out as CSV and as JSON, whole, and names how its pieces stand', async () => {
    const id = await handIn({ licence: 'cc-by-4.0', creator: '=Ines', title: 'Heron, “still”' });
    const csv = (await server.ask('/api/rights.csv?matter=all&place=anywhere')).body;
    const read = readLedger(Buffer.from(String(csv)));
    const line = read.kind === 'read' ? read.lines.find((one) => one.id === id) : undefined;
    expect(line?.label).toMatchObject({ creator: '=Ines', title: 'Heron, “still”', licence: 'cc-by-4.0' });
    expect(String(csv)).toContain("'=Ines");
    const json = (await server.ask('/api/rights.json?matter=all&place=anywhere')).body;
    const again = readLedger(Buffer.from(typeof json === 'string' ? json : JSON.stringify(json)));
    expect(again.kind === 'read' && again.lines.map((one) => one.id)).toContain(id);
    const looked = await server.ask('/api/rights/lookups', {
      method: 'POST',
      body: { ids: [id, 'nobody'], files: [] },
    });
    expect(looked.body).toMatchObject([{ id, label: { creator: '=Ines' } }]);
  });

  it('comes in row by row: what somebody changed since, and what cannot be, leaves the others alone', async () => {
    const [one, other] = [await handIn({ title: 'One' }), await handIn({ title: 'Other' })];
    const [a, b] = [await findAsset(server.context, one), await findAsset(server.context, other)];
    const rows = [
      { id: one, version: a.version, label: { creator: 'Tomas Reill' } },
      { id: other, version: b.version - 1, label: { creator: 'Tomas Reill' } },
      { id: 'gone', version: 1, label: { creator: 'Tomas Reill' } },
    ];
    const answer = await server.ask('/api/rights/changes', { method: 'POST', body: { rows } });
    expect(answer.body).toMatchObject([
      { id: one, version: a.version + 1, why: '' },
      { id: other, version: null, why: expect.stringContaining('Somebody changed this label meanwhile.') },
      { id: 'gone', version: null },
    ]);
    expect((await findAsset(server.context, one)).label.creator).toBe('Tomas Reill');
    expect((await findAsset(server.context, other)).label.creator).toBe('');
    const asJoss = { method: 'POST', as: 'joss', body: { rows } } as const;
    expect((await server.ask('/api/rights/changes', asJoss)).status).toBe(403);
  });
});

describe('the day after a last day', () => {
  const tomorrow = new Date(Date.now() + 2 * DAY_MILLIS);
  const takeOff = { do: 'take-off', by: 'Somebody else', personId: 'sunniva' } as const;

  it('takes off what was decided to be taken off, in the name of whoever decided, and once', async () => {
    const [id, other] = [
      await handIn(agreed({ ends: dayAt(0), afterwards: takeOff }), 'piet'),
      await handIn({ licence: 'own' }),
    ];
    const page = await pageWith('Weather', [id, other]);
    expect((await findAsset(server.context, id)).label.terms.afterwards).toMatchObject({
      by: 'piet',
      personId: 'piet',
    });
    expect(await doOnTheDay(server.context, new Date(`${dayAt(0)}T12:00:00Z`))).toBe(0);
    expect(await placed(page)).toEqual([id, other]);
    expect(await doOnTheDay(server.context, tomorrow)).toBe(1);
    expect(await placed(page)).toEqual([other]);
    const [row] = await server.context.db.select().from(pages).where(eq(pages.id, page));
    expect(row).toMatchObject({ version: 3, updatedBy: 'piet' });
    expect(await doOnTheDay(server.context, tomorrow)).toBe(0);
  });

  it('puts another in the place of what was decided to be replaced', async () => {
    const fresh = await handIn({ licence: 'own' });
    const afterwards = { do: 'replace', piece: fresh, by: '', personId: '' } as const;
    const id = await handIn(agreed({ ends: dayAt(0), afterwards }), 'piet');
    const page = await pageWith('Otters', [id]);
    expect(await doOnTheDay(server.context, tomorrow)).toBe(1);
    expect(await placed(page)).toEqual([fresh]);
  });

  it('leaves alone what nobody decided, and what cannot be replaced any more', async () => {
    const gone = await handIn({ licence: 'own' });
    const afterwards = { do: 'replace', piece: gone, by: '', personId: '' } as const;
    const [undecided, stuck] = [
      await handIn(agreed({ ends: dayAt(0) })),
      await handIn(agreed({ ends: dayAt(0), afterwards }), 'piet'),
    ];
    const page = await pageWith('Tides', [undecided, stuck]);
    await server.ask(`/api/assets/${gone}`, { method: 'DELETE' });
    expect(await doOnTheDay(server.context, tomorrow)).toBe(0);
    expect(await placed(page)).toEqual([undecided, stuck]);
  });
});
