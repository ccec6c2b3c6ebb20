import { eq, like, sql } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AssetListSchema, LookalikesSchema, ReplacedSchema } from '#api/assets.ts';
import { PageSchema } from '#api/pages.ts';
import { PROGRESS_LINES, ProgressLineSchema } from '#api/progress.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { pages } from '../db/schema.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { emptyBin } from './put-away.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('put_away');
});
afterAll(() => server.close());

/** A picture of patches; the same seed gives the same picture, at any size. */
async function patches(seed: number, width = 600): Promise<Buffer> {
  let state = seed;
  const next = () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
  const pixels = Buffer.from(Array.from({ length: 12 * 8 * 3 }, () => Math.floor(next() * 256)));
  const small = await sharp(pixels, { raw: { width: 12, height: 8, channels: 3 } })
    .png()
    .toBuffer();
  return sharp(small)
    .resize(width, Math.round((width * 2) / 3), { kernel: 'nearest', fit: 'fill' })
    .jpeg({ quality: 92 })
    .toBuffer();
}

const handIn = async (seed: number, name: string, width = 600, as: Who = 'mara') =>
  arrivedOf(await server.handIn(await patches(seed, width), name, as)).asset;

async function shelf(query = '', as: Who = 'mara'): Promise<readonly string[]> {
  const answer = await server.ask(`/api/assets?${query}`, { as });
  return v.parse(AssetListSchema, answer.body).assets.map(({ id }) => id);
}

const alike = async (id: string) =>
  v
    .parse(LookalikesSchema, (await server.ask(`/api/assets/${id}/lookalikes`)).body)
    .map(({ asset }) => asset.id);

const post = (path: string, body: unknown = {}, as: Who = 'mara') =>
  server.ask(path, { method: 'POST', body, as });

async function pageWith(title: string, assetId: string): Promise<string> {
  const want = { id: 'w', purpose: 'Lead', shape: 'any', leastWidth: 0, filledBy: assetId } as const;
  const made = await post('/api/pages', { title, targetId: 'reserve', wants: [], due: null });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const doc: PageDoc = {
    ...emptyPage(title, [want]),
    tray: [assetId],
    blocks: [{ type: 'placement', attrs: { ...newPlacement('one', assetId), caption: 'Here only.' } }],
  };
  await server.ask(`/api/pages/${id}`, { method: 'PUT', version: 1, body: { doc } });
  return id;
}

const pageOf = async (id: string) => v.parse(PageSchema, (await server.ask(`/api/pages/${id}`)).body);

describe('lookalikes', () => {
  it('are found at another size and quality, until somebody keeps both', async () => {
    const large = await handIn(1, 'large.jpg', 900);
    const small = await handIn(1, 'small.jpg', 480);
    await handIn(2, 'other.jpg');
    expect(await alike(large.id)).toEqual([small.id]);
    expect(await alike(small.id)).toEqual([large.id]);
    await post(`/api/assets/${small.id}/keep-apart`, { other: large.id });
    expect(await alike(large.id)).toEqual([]);
    await server.ask(`/api/assets/${large.id}/keep-apart/${small.id}`, { method: 'DELETE' });
    expect(await alike(large.id)).toEqual([small.id]);
  });

  it('one is folded under the other, and stands by itself again', async () => {
    const head = await handIn(3, 'head.jpg', 900);
    const folded = await handIn(3, 'folded.jpg', 480);
    await post(`/api/assets/${folded.id}/fold`, { into: head.id });
    expect(await shelf()).not.toContain(folded.id);
    expect(await shelf('part=folded')).toEqual([folded.id]);
    // Nothing hangs under a piece that is not seen itself.
    expect((await post(`/api/assets/${head.id}/fold`, { into: folded.id })).status).toBe(409);
    expect((await post(`/api/assets/${head.id}/fold`, { into: head.id })).status).toBe(409);
    await post(`/api/assets/${folded.id}/fold`, { into: null });
    expect(await shelf()).toContain(folded.id);
  });
});

describe('a piece in the place of another', () => {
  it('takes it over on every page with its words and wants, and is taken back as one', async () => {
    const old = await handIn(4, 'old.jpg');
    const better = await handIn(4, 'better.jpg', 1200);
    const pages = [await pageWith('First', old.id), await pageWith('Second', old.id)];
    const own = await server.ask(`/api/assets/${old.id}/own-words`);
    expect(own.body).toEqual(
      ['First', 'Second'].map((title, at) => ({ id: pages[at], title, alt: false, caption: true })),
    );
    const done = v.parse(
      ReplacedSchema,
      (await post(`/api/assets/${old.id}/replace`, { by: better.id })).body,
    );
    expect(done.pages).toBe(2);
    for (const id of pages) {
      const { doc } = await pageOf(id);
      expect(doc.tray).toEqual([better.id]);
      expect(doc.wants[0]?.filledBy).toBe(better.id);
      expect(doc.blocks[0]).toMatchObject({ attrs: { asset: better.id, caption: 'Here only.' } });
    }
    expect(await shelf()).not.toContain(old.id);
    const back = await post(`/api/assets/${old.id}/replace/take-back`, { at: done.at });
    expect(back.body).toMatchObject({ pages: 2 });
    for (const id of pages) expect((await pageOf(id)).doc.tray).toEqual([old.id]);
    expect(await shelf()).toContain(old.id);
  });

  it('tells on the way how far it is, whoever asks for that', async () => {
    const old = await handIn(46, 'slow.jpg');
    const better = await handIn(47, 'better-slow.jpg');
    const other = await handIn(48, 'other-slow.jpg');
    for (const title of ['First slow', 'Second slow']) await pageWith(title, old.id);
    const asked = { method: 'POST', headers: { Accept: `${PROGRESS_LINES}, application/json` } };
    const swap = (id: string, by: string) =>
      server.ask(`/api/assets/${id}/replace`, { ...asked, body: { by } });
    const { body } = await swap(old.id, better.id);
    const lines = String(body)
      .trim()
      .split('\n')
      .map((line) => v.parse(ProgressLineSchema, JSON.parse(line)));
    expect(lines).toEqual([
      { done: 1, of: 2 },
      { done: 2, of: 2 },
      { answer: { pages: 2, at: expect.any(String) } },
    ]);
    // What is refused before anything was written is a problem as ever.
    expect((await swap(old.id, other.id)).status).toBe(409);
    // A page that cannot be read stops it on the way: nothing of it stands.
    const [before = '', last = ''] = [
      await pageWith('Third slow', better.id),
      await pageWith('Fourth slow', better.id),
    ].sort();
    const { db } = server.context;
    const torn = sql`json_set(doc, '$.blocks', 'torn')`;
    await db.update(pages).set({ doc: torn, title: 'Torn' }).where(eq(pages.id, last));
    const told =
      String((await swap(better.id, other.id)).body)
        .trim()
        .split('\n')
        .at(-1) ?? '';
    expect(JSON.parse(told)).toMatchObject({
      problem: { status: 409, detail: expect.stringContaining('Torn') },
    });
    expect((await pageOf(before)).doc.tray).toEqual([better.id]);
    await db.delete(pages).where(eq(pages.id, last));
  });

  it('takes it over on every page there is, also beyond those that are listed', async () => {
    const old = await handIn(44, 'everywhere.jpg');
    const better = await handIn(45, 'better-everywhere.jpg');
    const { db } = server.context;
    const many = 620;
    const now = new Date();
    const doc = { ...emptyPage('One of many'), tray: [old.id] };
    const rows = Array.from({ length: many }, (_, at) => ({
      id: `many-${String(at).padStart(4, '0')}`,
      targetId: 'reserve',
      title: 'One of many',
      doc,
      createdAt: now,
      updatedAt: new Date(now.getTime() - at * 1000),
      updatedBy: 'mara',
    }));
    await db.insert(pages).values(rows);
    const first = await post(`/api/assets/${old.id}/replace`, { by: better.id });
    expect(first.body).toMatchObject({ pages: many });
    const left = await db
      .select({ id: pages.id })
      .from(pages)
      .where(like(pages.doc, `%${old.id}%`));
    expect(left).toEqual([]);
    // Asked again after a lost line, it answers what it did.
    expect((await post(`/api/assets/${old.id}/replace`, { by: better.id })).body).toEqual(first.body);
    const { at } = v.parse(ReplacedSchema, first.body);
    expect((await post(`/api/assets/${old.id}/replace/take-back`, { at })).body).toMatchObject({
      pages: many,
    });
    await db.delete(pages).where(like(pages.id, 'many-%'));
  }, 120_000);

  it('that two people replace at once takes one of the two, whole, and the other is told', async () => {
    const [old, one, other] = [
      await handIn(31, 'old.jpg'),
      await handIn(32, 'one.jpg'),
      await handIn(33, 'other.jpg'),
    ];
    const ids = await Promise.all(Array.from({ length: 6 }, (_, at) => pageWith(`Both ${at}`, old.id)));
    const answers = await Promise.all([
      post(`/api/assets/${old.id}/replace`, { by: one.id }, 'mara'),
      post(`/api/assets/${old.id}/replace`, { by: other.id }, 'piet'),
    ]);
    const stand = new Set((await Promise.all(ids.map(pageOf))).flatMap(({ doc }) => doc.tray));
    expect(stand.size).toBe(1);
    const [winner] = stand;
    const done = answers.map(({ status, body }) => [status, v.is(ReplacedSchema, body) ? body.pages : null]);
    const at = winner === one.id ? 0 : 1;
    expect(done[at]).toEqual([200, 6]);
    expect(done[1 - at]?.[0]).toBe(409);
    const [told] = answers.filter(({ status }) => status === 409);
    expect(told && detailOf(told)).toContain('in its place meanwhile');
  });

  it('is not taken back over somebody’s later work', async () => {
    const old = await handIn(5, 'before.jpg');
    const fresh = await handIn(6, 'after.jpg');
    const id = await pageWith('Worked on', old.id);
    const done = v.parse(
      ReplacedSchema,
      (await post(`/api/assets/${old.id}/replace`, { by: fresh.id })).body,
    );
    const { doc, version } = await pageOf(id);
    await server.ask(`/api/pages/${id}`, {
      method: 'PUT',
      version,
      body: { doc: { ...doc, title: 'Later' } },
    });
    const back = await post(`/api/assets/${old.id}/replace/take-back`, { at: done.at });
    expect(back.status).toBe(409);
    expect(detailOf(back)).toContain('“Later” was changed since');
    expect((await pageOf(id)).doc.title).toBe('Later');
  });
});

describe('thrown away', () => {
  it('is off the shelf and brought back whole, and after 30 days it is gone with its files', async () => {
    const piece = await handIn(7, 'thrown.jpg');
    await server.ask(`/api/assets/${piece.id}`, { method: 'DELETE' });
    expect(await shelf()).not.toContain(piece.id);
    expect(await shelf('part=thrown-away')).toContain(piece.id);
    await post(`/api/assets/${piece.id}/bring-back`);
    expect(await shelf()).toContain(piece.id);
    await server.ask(`/api/assets/${piece.id}`, { method: 'DELETE' });
    const day = 24 * 60 * 60 * 1000;
    await emptyBin(server.context, new Date(Date.now() + 29 * day));
    expect(await shelf('part=thrown-away')).toContain(piece.id);
    await emptyBin(server.context, new Date(Date.now() + 31 * day));
    expect(await shelf('part=thrown-away')).not.toContain(piece.id);
    expect((await fetch(piece.thumb)).status).toBe(404);
  });

  it('is shown nowhere any more but where it can be brought back', async () => {
    const piece = await handIn(71, 'shown.jpg');
    expect((await fetch(piece.thumb)).status).toBe(200);
    await server.ask(`/api/assets/${piece.id}`, { method: 'DELETE' });
    // What was asked for a moment ago may still be known for as long.
    await new Promise((resolve) => setTimeout(resolve, 5100));
    expect((await fetch(piece.thumb)).status).toBe(404);
    expect((await fetch(piece.view)).status).toBe(404);
    const { assets: thrown } = v.parse(
      AssetListSchema,
      (await server.ask('/api/assets?part=thrown-away')).body,
    );
    const again = thrown.find(({ id }) => id === piece.id);
    expect((await fetch(again?.thumb ?? '')).status).toBe(200);
    await post(`/api/assets/${piece.id}/bring-back`);
  });

  it('comes back when the very same file comes in again', async () => {
    const piece = await handIn(8, 'again.jpg');
    await server.ask(`/api/assets/${piece.id}`, { method: 'DELETE' });
    const again = arrivedOf(await server.handIn(await patches(8), 'again.jpg'));
    expect(again).toMatchObject({ isNew: false, asset: { id: piece.id, deletedAt: null } });
  });

  it('is not for a contributor to throw what others handed in, nor to fold or replace', async () => {
    const piece = await handIn(9, 'mara.jpg');
    const own = await handIn(10, 'joss.jpg', 600, 'joss');
    expect((await server.ask(`/api/assets/${piece.id}`, { method: 'DELETE', as: 'joss' })).status).toBe(403);
    expect((await server.ask(`/api/assets/${own.id}`, { method: 'DELETE', as: 'joss' })).status).toBe(200);
    expect((await post(`/api/assets/${piece.id}/fold`, { into: null }, 'joss')).status).toBe(403);
    expect((await post(`/api/assets/${piece.id}/replace`, { by: own.id }, 'joss')).status).toBe(403);
    expect((await server.ask(`/api/assets/${piece.id}/own-words`, { as: 'joss' })).status).toBe(403);
  });
});

describe('kept at hand', () => {
  it('is each person’s own', async () => {
    const piece = await handIn(11, 'pinned.jpg');
    await server.ask(`/api/pins/${piece.id}`, { method: 'PUT', body: {} });
    expect((await server.ask('/api/pins')).body).toEqual([piece.id]);
    expect((await server.ask('/api/pins', { as: 'piet' })).body).toEqual([]);
    expect(await shelf('part=pinned')).toEqual([piece.id]);
    await server.ask(`/api/pins/${piece.id}`, { method: 'DELETE' });
    expect(await shelf('part=pinned')).toEqual([]);
  });
});

describe('a tray', () => {
  it('is added to while somebody else works on the page, and only what is not placed comes off again', async () => {
    const placed = await handIn(12, 'placed.jpg');
    const loose = await handIn(13, 'loose.jpg');
    const id = await pageWith('Busy', placed.id);
    const before = await pageOf(id);
    expect((await post(`/api/pages/${id}/tray`, { add: [loose.id], remove: [], wantId: null })).status).toBe(
      204,
    );
    expect((await pageOf(id)).doc.tray).toEqual([placed.id, loose.id]);
    // Whoever has the page open still saves on the version that they know, and is told of the other.
    const late = await server.ask(`/api/pages/${id}`, {
      method: 'PUT',
      version: before.version,
      body: { doc: before.doc },
    });
    expect(late.status).toBe(412);
    await post(`/api/pages/${id}/tray`, { add: [], remove: [placed.id, loose.id], wantId: null });
    expect((await pageOf(id)).doc.tray).toEqual([placed.id]);
    expect(
      (await post(`/api/pages/${id}/tray`, { add: [loose.id], remove: [], wantId: null }, 'joss')).status,
    ).toBe(403);
  });
});
