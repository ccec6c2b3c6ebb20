import { spawn } from 'node:child_process';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ArrivedFileSchema, AssetListSchema, AssetSchema } from '#api/assets.ts';
import { GatheringSchema, SourceAnswerSchema } from '#api/gather.ts';
import { OffersSchema, type Purchase, PurchaseSchema } from '#api/purchases.ts';
import { newPlacement, type Placement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { placementsOf } from '#core/page/walk.ts';
import { NO_TERMS, type Terms } from '#core/rights/terms.ts';
import { jobs, purchases } from '../db/schema.ts';
import { workOne } from '../jobs/worker.ts';
import { readPage } from '../pages/store.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';

import { doOnTheDay } from './on-the-day.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('purchases', { outside: true });
  await server.ask('/api/spending', {
    as: 'sunniva',
    method: 'PUT',
    body: limits({ 'rights-keeper': 100_000 }),
  });
});
afterAll(() => server.close());

const limits = (said: object) => ({
  editor: 0,
  'rights-keeper': 0,
  'site-owner': null,
  contributor: 0,
  ...said,
});

const agency = async (path: string): Promise<string> => {
  const limits = { bytes: 100_000, millis: 5000 };
  return (await server.context.outbound.read(server.at('brackwater', path), { limits })).bytes.toString();
};
const mood = (kind: string) => agency(`/-/misbehave/${kind}`);
const AccountSchema = v.object({ charges: v.array(v.object({ key: v.string(), charged: v.number() })) });
const charges = async () => v.parse(AccountSchema, JSON.parse(await agency('/api/account'))).charges;

/** A comp of the agency on the shelf, as Gather brings it. */
async function comp(words: string): Promise<string> {
  const answer = await server.ask(`/api/sources/brackwater/pictures?words=${words}`);
  const [picture] = v.parse(SourceAnswerSchema, answer.body).pictures;
  const body = { seals: [picture?.seal], pageId: null, wantId: null, folder: '', licence: null };
  const ordered = await server.ask('/api/gatherings', { method: 'POST', body });
  await workOne(server.context, ['gather']);
  const { jobId } = v.parse(GatheringSchema, ordered.body);
  const { takings } = v.parse(GatheringSchema, (await server.ask(`/api/gatherings/${jobId}`)).body);
  const asset = takings[0]?.asset;
  if (!asset) throw new Error('No comp came.');
  return asset.id;
}

async function pageWith(title: string, asset: string, said: Partial<Placement> = {}): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title, targetId: 'reserve', wants: [], due: null },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const attrs = { ...newPlacement('one', asset), ...said };
  const doc: PageDoc = { ...emptyPage(title), tray: [asset], blocks: [{ type: 'placement', attrs }] };
  expect((await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 })).status).toBe(
    200,
  );
  return id;
}

const wish = (compId: string, said: object = {}) => ({
  compId,
  offer: 'web-2',
  amount: 1_000_000,
  licensedTo: 'Saltmere Marsh Reserve',
  ...said,
});
const post = (path: string, body: unknown = {}, as: Who = 'piet', key?: string) =>
  server.ask(path, { method: 'POST', body, as, headers: key ? { 'idempotency-key': key } : {} });
const begin = async (compId: string, said: object = {}): Promise<Purchase> => {
  const answer = await post('/api/purchases', wish(compId, said));
  expect(answer.status).toBe(202);
  return v.parse(PurchaseSchema, answer.body);
};
const look = async (id: string): Promise<Purchase> =>
  v.parse(PurchaseSchema, (await server.ask(`/api/purchases/${id}`, { as: 'piet' })).body);
const placed = async (pageId: string) =>
  placementsOf((await readPage(server.context, pageId, 'house')).doc)[0];

describe('a comp that is bought', () => {
  it('is replaced by its original on all pages, with all that was said of it and done to it', async () => {
    const id = await comp('dusk');
    await server.ask(`/api/assets/${id}`, {
      method: 'PATCH',
      version: 1,
      body: {
        label: { alt: { kind: 'text', text: 'The marsh under a purple sky.' }, focal: { x: 0.2, y: 0.7 } },
      },
    });
    const said = {
      caption: 'Here only.',
      ratio: { across: 3, down: 1 },
      position: 'beside-right',
      width: { unit: '%', value: 40 },
    } as const;
    const ids = [await pageWith('One', id), await pageWith('Two', id, said), await pageWith('Three', id)];
    const offers = v.parse(OffersSchema, (await server.ask(`/api/assets/${id}/offers`, { as: 'piet' })).body);
    expect(offers).toMatchObject({ agency: 'Brackwater Pictures' });
    expect(offers.offers.find((offer) => offer.id === 'web-2')).toMatchObject({
      amount: 8400,
      currency: 'EUR',
    });

    const { id: purchaseId } = await begin(id);
    await workOne(server.context, ['buy']);
    const done = await look(purchaseId);
    expect(done).toMatchObject({ state: 'done', pages: 3, halted: false, by: 'piet' });
    const { original } = done;
    expect(original).toMatchObject({ width: 900, height: 600, drafted: [] });
    expect(original?.label).toMatchObject({
      licence: 'agency',
      source: 'Brackwater Pictures',
      sourceId: '88-4440',
      licensedTo: 'Saltmere Marsh Reserve',
      creator: 'R. Achterberg',
      alt: { kind: 'text', text: 'The marsh under a purple sky.' },
      focal: { x: 0.2, y: 0.7 },
    });
    expect(original?.label.terms).toMatchObject({
      uses: ['web', 'newsletter', 'social'],
      territory: ['150'],
      price: { amount: 84, currency: 'EUR' },
      ends: expect.stringMatching(/^\d{4}-\d\d-\d\d$/),
    });
    expect(original?.stem).toBe('dusk-over-saltmere');
    for (const page of ids) expect((await placed(page))?.asset).toBe(original?.id);
    expect(await placed(ids[1] ?? '')).toMatchObject(said);
    expect((await charges()).map(({ key }) => key)).toContain(purchaseId);

    // One step takes it back everywhere.
    const back = await post(`/api/assets/${id}/replace/take-back`, { at: done.replacedAt });
    expect(back.status).toBe(200);
    for (const page of ids) expect((await placed(page))?.asset).toBe(id);
  });

  it('whose original is of another shape waits to be compared', async () => {
    const id = await comp('roof');
    const page = await pageWith('Reeds', id);
    const { id: purchaseId } = await begin(id);
    await workOne(server.context, ['buy']);
    expect(await look(purchaseId)).toMatchObject({ state: 'to-compare' });
    expect((await placed(page))?.asset).toBe(id);
    const done = v.parse(PurchaseSchema, (await post(`/api/purchases/${purchaseId}/put-in-place`)).body);
    expect(done).toMatchObject({ state: 'done', pages: 1 });
    expect((await placed(page))?.asset).toBe(done.original?.id);
    const again = v.parse(PurchaseSchema, (await post(`/api/purchases/${purchaseId}/put-in-place`)).body);
    expect(again.replacedAt).toBe(done.replacedAt);
  });
});

describe('a purchase', () => {
  it('is refused to who may not spend so much, and to everybody for what is bought already', async () => {
    const id = await comp('walkway');
    expect(detailOf(await post('/api/purchases', wish(id), 'mara'))).toContain('Your role buys nothing.');
    expect(detailOf(await post('/api/purchases', wish(id, { amount: 100 })))).toContain(
      'It costs 84.00 EUR by now, and not 1.00 EUR. Nothing was bought.',
    );
    await server.ask('/api/spending', {
      as: 'sunniva',
      method: 'PUT',
      body: limits({ 'rights-keeper': 20_000 }),
    });
    // Two were bought before it.
    expect(detailOf(await post('/api/purchases', wish(id)))).toContain('You may spend 200.00 EUR a month');
    await server.ask('/api/spending', {
      as: 'sunniva',
      method: 'PUT',
      body: limits({ 'rights-keeper': 100_000, editor: 100_000 }),
    });
    const [one, other] = await Promise.all([
      post('/api/purchases', wish(id)),
      post('/api/purchases', wish(id), 'mara'),
    ]);
    expect([one.status, other.status].sort()).toEqual([202, 409]);
    await workOne(server.context, ['buy']);
    expect((await server.ask('/api/spending', { as: 'mara', method: 'PUT', body: limits({}) })).status).toBe(
      403,
    );
  });

  it('sent twice after a lost line is one', async () => {
    const id = await comp('bittern');
    const before = (await charges()).length;
    const [one, other] = [
      await post('/api/purchases', wish(id), 'piet', 'the-same-key'),
      await post('/api/purchases', wish(id), 'piet', 'the-same-key'),
    ];
    expect(v.parse(PurchaseSchema, one.body).id).toBe(v.parse(PurchaseSchema, other.body).id);
    await workOne(server.context, ['buy']);
    expect((await charges()).length).toBe(before + 1);
  });

  it('that was paid for and not heard of is put again, and paid for once', async () => {
    const id = await comp('telescope');
    const before = (await charges()).length;
    const { id: purchaseId } = await begin(id);
    await mood('unheard');
    await workOne(server.context, ['buy']);
    expect(await look(purchaseId)).toMatchObject({
      state: 'ordering',
      halted: true,
      words: expect.stringContaining('paid for once'),
    });
    await mood('well');
    expect((await charges()).length).toBe(before + 1);
    await post(`/api/purchases/${purchaseId}/go-on`);
    await workOne(server.context, ['buy']);
    expect(await look(purchaseId)).toMatchObject({ state: 'done' });
    expect((await charges()).length).toBe(before + 1);
  }, 60_000);

  it('goes on where it was, wherever its process is killed, and is paid for once', async () => {
    const id = await comp('heron');
    const pagesOf = [await pageWith('Heron one', id), await pageWith('Heron two', id)];
    const before = (await charges()).length;
    const { id: purchaseId } = await begin(id);
    // A moment that is short may be over before anybody looks: whatever lies behind it is past it too.
    const isDone = async () => (await rowOf(purchaseId))?.state === 'done';
    const isPast: readonly (() => Promise<boolean>)[] = [
      async () => (await charges()).length > before,
      async () => (await rowOf(purchaseId))?.state !== 'ordering',
      async () => (await shelfOf('heron-by-the-planks')) > 1 || (await isDone()),
      async () => (await rowOf(purchaseId))?.originalId !== null,
    ];
    for (const reached of isPast) await workUntil(purchaseId, reached);
    await workUntil(purchaseId, isDone);
    const done = await look(purchaseId);
    expect(done).toMatchObject({ state: 'done', pages: 2 });
    for (const page of pagesOf) expect((await placed(page))?.asset).toBe(done.original?.id);
    expect((await charges()).length).toBe(before + 1);
    expect(await shelfOf('heron-by-the-planks')).toBe(1);
  }, 180_000);
});

describe('a licence that is renewed', () => {
  const TERMS = { ...NO_TERMS, begins: '2025-12-14', ends: '2026-12-13' };

  /** A picture that was bought before Placard was there: its label says from whom. */
  async function agencyPicture(sourceId: string, terms: Terms = TERMS): Promise<string> {
    const background = { r: Number(sourceId.slice(-2)), g: 90, b: 60 };
    const bytes = await sharp({ create: { width: 300, height: 200, channels: 3, background } })
      .jpeg()
      .toBuffer();
    const { asset } = arrivedOf(await server.handIn(bytes, `${sourceId}.jpg`));
    const rights = { licence: 'agency', source: 'Brackwater Pictures', sourceId, licensedTo: 'Saltmere' };
    const answer = await server.ask(`/api/assets/${asset.id}`, {
      as: 'piet',
      method: 'PATCH',
      version: asset.version,
      body: { label: { ...rights, terms } },
    });
    expect(answer.status).toBe(200);
    return asset.id;
  }
  const piece = async (id: string) =>
    v.parse(AssetSchema, (await server.ask(`/api/assets/${id}`, { as: 'piet' })).body);

  it('is paid for once, and its term goes on where it ends, on the pages where it stands', async () => {
    const id = await agencyPicture('88-4440');
    const page = await pageWith('Eels', id);
    const before = (await charges()).length;
    const { id: purchaseId, isRenewal } = await begin(id);
    expect(isRenewal).toBe(true);
    const twice = await post('/api/purchases', wish(id));
    expect([twice.status, detailOf(twice)]).toEqual([
      409,
      expect.stringContaining('is renewing it just now'),
    ]);
    await workOne(server.context, ['buy']);
    expect(await look(purchaseId)).toMatchObject({ state: 'done', words: 'Its term goes on.' });
    expect((await charges()).length).toBe(before + 1);
    expect((await piece(id)).label).toMatchObject({
      licence: 'agency',
      terms: { begins: '2025-12-14', ends: '2028-12-13' },
    });
    expect((await placed(page))?.asset).toBe(id);
    // Put again after its process was killed, the term does not go on twice.
    await server.context.db
      .update(jobs)
      .set({ state: 'waiting', leaseUntil: null })
      .where(eq(jobs.id, purchaseId));
    await workOne(server.context, ['buy']);
    expect((await piece(id)).label.terms.ends).toBe('2028-12-13');
    expect((await charges()).length).toBe(before + 1);
  });

  it('is renewed by itself on its last day where that was decided, once', async () => {
    const afterwards = { do: 'renew', offer: 'web-2', amount: 1_000_000, by: '', personId: '' } as const;
    const id = await agencyPicture('88-4412', { ...TERMS, afterwards });
    await pageWith('Reeds', id);
    const before = (await charges()).length;
    await doOnTheDay(server.context, new Date('2026-12-12T12:00:00Z'));
    expect(await workOne(server.context, ['buy'])).toBe(false);
    for (const hour of ['10', '12']) await doOnTheDay(server.context, new Date(`2026-12-13T${hour}:00:00Z`));
    while (await workOne(server.context, ['buy']));
    expect((await charges()).length).toBe(before + 1);
    expect((await piece(id)).label.terms).toMatchObject({ ends: '2028-12-13', afterwards: { do: 'unsaid' } });
  });

  it('is left to its end where it costs more than was decided', async () => {
    const afterwards = { do: 'renew', offer: 'web-2', amount: 1, by: '', personId: '' } as const;
    const id = await agencyPicture('88-4413', { ...TERMS, afterwards });
    await pageWith('Sluices', id);
    await doOnTheDay(server.context, new Date('2026-12-13T12:00:00Z'));
    expect(await workOne(server.context, ['buy'])).toBe(false);
    expect((await piece(id)).label.terms.ends).toBe('2026-12-13');
  });
});

describe('an original that was bought elsewhere', () => {
  const drawn = (mark: string) =>
    sharp(
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="600"><rect width="900" height="600" fill="#468"/><circle cx="300" cy="250" r="180" fill="#eda"/><rect x="500" y="320" width="300" height="200" fill="#253"/>${mark}</svg>`,
      ),
    )
      .jpeg()
      .toBuffer();
  const MARK =
    '<g transform="rotate(-12 450 300)" fill="#fff" fill-opacity=".7"><rect y="180" width="900" height="40"/><rect y="400" width="900" height="40"/></g>';

  it('is recognised when it comes in, under the mark of its comp', async () => {
    const marked = arrivedOf(await server.handIn(await drawn(MARK), 'comp.jpg')).asset;
    await server.ask(`/api/assets/${marked.id}`, {
      method: 'PATCH',
      body: { label: { licence: 'comp' } },
      version: marked.version,
    });
    const other = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#468' } })
      .jpeg()
      .toBuffer();
    const [no, yes] = [
      await server.handIn(other, 'other.jpg'),
      await server.handIn(await drawn(''), 'bought.jpg'),
    ];
    expect(v.parse(ArrivedFileSchema, no.body).comp).toBeNull();
    expect(v.parse(ArrivedFileSchema, yes.body).comp?.id).toBe(marked.id);
  });
});

async function rowOf(purchaseId: string) {
  const [row] = await server.context.db.select().from(purchases).where(eq(purchases.id, purchaseId));
  return row;
}

async function shelfOf(words: string): Promise<number> {
  const answer = await server.ask(`/api/assets?words=${words}`);
  return v.parse(AssetListSchema, answer.body).assets.length;
}

/** A worker of its own process, killed at once when something is reached. */
async function workUntil(jobId: string, isReached: () => Promise<boolean>): Promise<void> {
  const { config } = server.context;
  // Its lease ran out.
  await server.context.db.update(jobs).set({ leaseUntil: null }).where(eq(jobs.id, jobId));
  const worker = spawn(process.execPath, ['--import', 'tsx', 'server/worker.ts'], {
    env: {
      ...process.env,
      DATABASE_URL: config.databaseUrl,
      PLACARD_DATA: config.dataFolder,
      PORT: String(new URL(config.appOrigin).port),
      OUTSIDE_PORT: String(config.standInPorts[0]),
    },
    stdio: 'ignore',
  });
  const ended = new Promise((resolve) => worker.once('exit', resolve));
  try {
    await expect.poll(isReached, { timeout: 40_000, interval: 5 }).toBe(true);
  } catch (error) {
    const [job] = await server.context.db.select().from(jobs).where(eq(jobs.id, jobId));
    const stands = JSON.stringify({ job, purchase: await rowOf(jobId), exit: worker.exitCode });
    throw new Error(`It was never reached: ${stands}`, { cause: error });
  } finally {
    worker.kill('SIGKILL');
    await ended;
  }
}
