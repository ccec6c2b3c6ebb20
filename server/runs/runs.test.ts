import { eq } from 'drizzle-orm';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Asset, AssetSchema, MadeCutsSchema } from '#api/assets.ts';
import { DeskSchema } from '#api/desk.ts';
import { type Run, type RunPreview, RunPreviewSchema, RunSchema } from '#api/runs.ts';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import { plainOrder, type RunOrder } from '#core/run/order.ts';
import type { Context } from '../context.ts';
import { held, jobs, targets } from '../db/schema.ts';
import { takeJob } from '../jobs/queue.ts';
import { workOne } from '../jobs/worker.ts';
import { keepNamesOut } from '../shelf/names-out.ts';
import { originalKey } from '../storage/storage.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { RUN, run } from './work.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('runs');
});
afterAll(() => server.close());

let grey = 10;

/** A picture of its own to the last byte. */
async function handIn(name: string, size = { width: 900, height: 600 }): Promise<Asset> {
  grey += 1;
  const background = { r: grey, g: (grey * 7) % 256, b: (grey * 3) % 256 };
  const bytes = await sharp({ create: { ...size, channels: 3, background } })
    .jpeg()
    .toBuffer();
  return arrivedOf(await server.handIn(bytes, name)).asset;
}

const assetOf = async (id: string) => v.parse(AssetSchema, (await server.ask(`/api/assets/${id}`)).body);

async function change(id: string, body: object): Promise<void> {
  const { version } = await assetOf(id);
  const answer = await server.ask(`/api/assets/${id}`, { method: 'PATCH', version, body });
  expect(answer.status).toBe(200);
}

function order(pieces: readonly Asset[], change: Partial<RunOrder> = {}): RunOrder {
  const ids = pieces.map(({ id }) => id);
  return { ...plainOrder('reserve', ids), formats: ['webp'], ...change };
}

async function previewed(wish: RunOrder): Promise<RunPreview> {
  return v.parse(
    RunPreviewSchema,
    (await server.ask('/api/run-previews', { method: 'POST', body: wish })).body,
  );
}

async function begin(wish: RunOrder): Promise<Run> {
  const { seen } = await previewed(wish);
  const answer = await server.ask('/api/runs', { method: 'POST', body: { order: wish, seen } });
  expect(answer.status).toBe(202);
  return v.parse(RunSchema, answer.body);
}

const readBack = async (id: string) => v.parse(RunSchema, (await server.ask(`/api/runs/${id}`)).body);
const deed = async (id: string, name: string) =>
  v.parse(RunSchema, (await server.ask(`/api/runs/${id}/${name}`, { method: 'POST', body: {} })).body);

async function done(wish: RunOrder): Promise<Run> {
  const { id } = await begin(wish);
  await workOne(server.context);
  return readBack(id);
}

const WIDE = { by: 'width', px: 400 } as const;
const BY_SUBJECT = { by: 'pattern', pattern: [{ part: 'subject' }], which: 'all' } as const;

describe('a run over many pieces', () => {
  it('says what it would do, then does just that, in one step for each piece', async () => {
    const [one, two] = [await handIn('IMG_0001.JPG'), await handIn('IMG_0002.JPG')];
    await change(one.id, { label: { title: 'Reed bed at dawn' } });
    await change(two.id, { label: { title: 'Reed bed at dawn' } });
    const wish = order([one, two], {
      sizes: [WIDE],
      naming: { ...BY_SUBJECT, pattern: [{ part: 'subject' }] },
      folder: 'Events / Reed cutting',
      recipe: { from: 'Heron', prep: { ...AS_IT_CAME, turn: 90 } },
    });
    const { rows } = await previewed(wish);
    expect(rows.map(({ after }) => after.stem)).toEqual(['reed-bed-at-dawn', 'reed-bed-at-dawn-2']);
    expect((await assetOf(one.id)).stem).toBe(one.stem);
    const ended = await done(wish);
    expect(ended).toMatchObject({ state: 'done', done: 2, refused: 0, of: 2, words: '2 of 2 done.' });
    expect(ended.steps[0]?.madeBytes).toBeGreaterThan(100);
    expect(await assetOf(one.id)).toMatchObject({
      stem: 'reed-bed-at-dawn',
      folder: 'events/reed-cutting',
      prep: { turn: 90 },
    });
    const made = v.parse(MadeCutsSchema, (await server.ask(`/api/assets/${one.id}/cuts`)).body);
    expect(made.byRuns.count).toBe(1);
  });

  it('waits while a name that was written in a row is none, and calls nothing by another', async () => {
    const [one, two] = [await handIn('walk one.JPG'), await handIn('walk two.JPG')];
    const wish = order([one, two], {
      naming: { ...BY_SUBJECT, pattern: [{ part: 'subject' }] },
      rows: { [one.id]: { stem: 'spring walk' }, [two.id]: { stem: 'spring-walk' } },
    });
    const { seen } = await previewed(wish);
    const answer = await server.ask('/api/runs', { method: 'POST', body: { order: wish, seen } });
    expect(answer.status).toBe(422);
    expect(detailOf(answer)).toContain(`The name that was written for ${one.stem} is none.`);
    expect((await assetOf(two.id)).stem).toBe(two.stem);
    // Left out, it holds nothing up.
    const rows = { ...wish.rows, [one.id]: { stem: 'spring walk', leftOut: true } };
    const ended = await done({ ...wish, rows });
    expect(ended).toMatchObject({ done: 1 });
    expect((await assetOf(two.id)).stem).toBe('spring-walk');
  });

  it('is taken back by one undo, with the files it made, and done again', async () => {
    const piece = await handIn('IMG_0003.JPG');
    await change(piece.id, { label: { title: 'Eel pass' } });
    const before = await assetOf(piece.id);
    const folders = async () => (await server.ask('/api/folders')).body;
    const foldersBefore = await folders();
    const ended = await done(
      order([piece], {
        sizes: [WIDE],
        folder: 'spring/walk',
        naming: { ...BY_SUBJECT, pattern: [{ part: 'subject' }] },
      }),
    );
    expect(await folders()).not.toEqual(foldersBefore);
    const back = await deed(ended.id, 'take-back');
    expect(back).toMatchObject({ done: 0, undone: 1 });
    expect(await folders()).toEqual(foldersBefore);
    const { version: _now, ...restored } = await assetOf(piece.id);
    const { version: _then, ...original } = before;
    expect(restored).toEqual({
      ...original,
      thumb: restored.thumb,
      view: restored.view,
      plainView: restored.plainView,
    });
    const made = v.parse(MadeCutsSchema, (await server.ask(`/api/assets/${piece.id}/cuts`)).body);
    expect(made).toMatchObject({ byRuns: { count: 0 }, unused: { count: 0 } });
    await deed(ended.id, 'go-on');
    await workOne(server.context);
    expect(await readBack(ended.id)).toMatchObject({ state: 'done', done: 1, undone: 0 });
    expect((await assetOf(piece.id)).stem).toBe('eel-pass');
  });

  it('leaves alone what somebody changed since, when it is done and when it is taken back', async () => {
    const [one, two] = [await handIn('IMG_0004.JPG'), await handIn('IMG_0005.JPG')];
    const wish = order([one, two], { folder: 'hides' });
    const { id } = await begin(wish);
    await change(one.id, { label: { title: 'Hide 3' } });
    await workOne(server.context);
    const ended = await readBack(id);
    expect(ended).toMatchObject({ done: 1, refused: 1, words: '1 done, 1 left as they were.' });
    expect(ended.steps[0]?.sentence).toContain('Somebody changed it');
    await change(two.id, { folder: 'sluice' });
    const back = await deed(id, 'take-back');
    expect(back.steps[1]?.sentence).toBe('Its folder was changed since, and stays so.');
    expect((await assetOf(two.id)).folder).toBe('sluice');
  });

  it('is not begun on what has changed since it was looked at', async () => {
    const piece = await handIn('IMG_0006.JPG');
    const wish = order([piece], { folder: 'hides' });
    const { seen } = await previewed(wish);
    await change(piece.id, { label: { title: 'Changed' } });
    const answer = await server.ask('/api/runs', { method: 'POST', body: { order: wish, seen } });
    expect(answer.status).toBe(409);
    expect(detailOf(answer)).toContain('Nothing was begun');
  });

  it('is not for contributors, and others cannot see it', async () => {
    const piece = await handIn('IMG_0007.JPG');
    const wish = order([piece], { folder: 'hides' });
    const asJoss = { as: 'joss' as Who, method: 'POST' };
    expect((await server.ask('/api/run-previews', { ...asJoss, body: wish })).status).toBe(403);
    expect((await server.ask('/api/runs', { ...asJoss, body: { order: wish, seen: '' } })).status).toBe(403);
    const { id } = await begin(wish);
    expect((await server.ask(`/api/runs/${id}`, { as: 'piet' })).status).toBe(404);
    await workOne(server.context);
  });

  it.each([
    ['no piece', { pieces: [] }],
    ['a width of nothing', { sizes: [{ by: 'width', px: 0 }] }],
    ['a huge width', { sizes: [{ by: 'width', px: 1_000_000 }] }],
    ['a recipe from a newer version', { recipe: { from: 'x', prep: { ...AS_IT_CAME, version: 2 } } }],
    ['no format', { formats: [] }],
  ])('with %s is refused in a sentence', async (_what, change) => {
    const piece = await handIn('IMG_0008.JPG');
    const body = { ...order([piece]), ...change };
    const answer = await server.ask('/api/run-previews', { method: 'POST', body });
    expect(answer.status).toBe(422);
    expect(detailOf(answer)).toContain('Nothing was changed');
  });
});

describe('a run that is cut short', () => {
  let pieces: readonly Asset[];
  beforeEach(async () => {
    pieces = await Promise.all(['a', 'b', 'c', 'd'].map((name) => handIn(`${name}-${grey}.JPG`)));
  });

  it('is stopped with what is done, and goes on', async () => {
    const { id } = await begin(order(pieces, { sizes: [WIDE], folder: 'stopped' }));
    await deed(id, 'stop');
    await workOne(server.context);
    const stopped = await readBack(id);
    expect(stopped.state).toBe('stopped');
    await deed(id, 'go-on');
    await workOne(server.context);
    expect(await readBack(id)).toMatchObject({ state: 'done', done: 4 });
  });

  it('goes on where it was when its worker died, and does nothing twice', async () => {
    const { id } = await begin(order(pieces, { sizes: [WIDE], folder: 'killed' }));
    const job = await takeJob(server.context, [RUN], new Date());
    if (!job) throw new Error('no job waits');
    let reports = 0;
    const dying = run(server.context, job, {
      signal: new AbortController().signal,
      report: async () => {
        reports += 1;
        if (reports > 2) throw new Error('killed');
      },
    });
    await expect(dying).rejects.toThrow('killed');
    const half = await readBack(id);
    expect(half.done).toBeGreaterThan(0);
    await server.context.db
      .update(jobs)
      .set({ leaseUntil: new Date(0) })
      .where(eq(jobs.id, id));
    await workOne(server.context);
    const ended = await readBack(id);
    expect(ended).toMatchObject({ state: 'done', done: 4 });
    for (const { id: assetId, version } of pieces) expect((await assetOf(assetId)).version).toBe(version + 1);
  });

  it('goes past a file that cannot be read any more', async () => {
    const [first] = pieces;
    const sha = await shaOf(first?.id ?? '');
    await server.context.storage.put(originalKey(sha), Buffer.from('not a picture any more'));
    const ended = await done(order(pieces, { sizes: [WIDE] }));
    expect(ended).toMatchObject({ state: 'done', done: 3, refused: 1 });
    expect(ended.steps[0]?.sentence).toContain('cannot be read any more');
  });

  it('halts when there is no room left, says so, and goes on when there is', async () => {
    const { id } = await begin(order(pieces, { sizes: [WIDE], folder: 'full' }));
    const full: Context = {
      ...server.context,
      storage: {
        ...server.context.storage,
        put: async () => {
          throw Object.assign(new Error('no space left on device'), { code: 'ENOSPC' });
        },
      },
    };
    await workOne(full);
    expect(await readBack(id)).toMatchObject({ state: 'stopped', done: 0 });
    expect((await readBack(id)).words).toContain('no room left');
    const { errands } = v.parse(DeskSchema, (await server.ask('/api/desk')).body);
    expect(errands.map(({ address }) => address)).toContain(`/shelf/runs/${id}`);
    await deed(id, 'go-on');
    await workOne(server.context);
    expect(await readBack(id)).toMatchObject({ state: 'done', done: 4 });
  });

  it('keeps to its sizes when their preset is deleted meanwhile', async () => {
    await withPresets([{ id: 'card', name: 'Card', ratio: { across: 1, down: 1 }, width: 200 }]);
    const { id } = await begin(order(pieces, { sizes: [{ by: 'preset', preset: 'card' }] }));
    await withPresets([]);
    await workOne(server.context);
    const ended = await readBack(id);
    expect(ended).toMatchObject({ state: 'done', done: 4 });
    expect(ended.steps[0]?.files[0]).toMatchObject({ width: 200, height: 200 });
  });

  it('over the same pieces as another leaves them to the first, and says so', async () => {
    const one = await begin(order(pieces, { folder: 'first' }));
    const other = await begin(order(pieces, { folder: 'second' }));
    await Promise.all([workOne(server.context), workOne(server.context)]);
    await workOne(server.context);
    const ended = [await readBack(one.id), await readBack(other.id)];
    expect(ended.map(({ done, refused }) => done + refused)).toEqual([4, 4]);
    expect(ended.reduce((sum, { done }) => sum + done, 0)).toBe(4);
  });
});

describe('names that went out', () => {
  it('are kept for their piece, and given to no other', async () => {
    const [one, two] = [await handIn('IMG_0100.JPG'), await handIn('IMG_0101.JPG')];
    await change(one.id, { stem: 'sluice-gate' });
    await keepNamesOut(server.context, [{ id: one.id, stem: 'sluice-gate' }], new Date());
    const rename = (stem: string) => order([one], { rows: { [one.id]: { stem } } });
    const { rows } = await previewed(rename('sluice-gate-open'));
    expect(rows[0]?.warnings).toEqual([{ code: 'was-out', stem: 'sluice-gate' }]);
    await done(rename('sluice-gate-open'));
    const taken = await previewed(order([two], { rows: { [two.id]: { stem: 'sluice-gate' } } }));
    expect(taken.rows[0]?.after.stem).toBe('sluice-gate-2');
    const { version } = await assetOf(two.id);
    const answer = await server.ask(`/api/assets/${two.id}`, {
      method: 'PATCH',
      version,
      body: { stem: 'sluice-gate' },
    });
    expect(answer.status).toBe(409);
    await change(one.id, { stem: 'sluice-gate' });
  });
});

describe('a run into a ZIP', () => {
  it('packs what was asked under its names, with a list, and leaves the shelf as it is', async () => {
    const piece = await handIn('IMG_0200.JPG');
    await change(piece.id, { label: { title: 'Hide, "No. 3"', creator: '=Okonjo', licence: 'cc-by-4.0' } });
    const ended = await done(
      order([piece], {
        sizes: [WIDE],
        formats: ['webp', 'jpeg'],
        folder: 'hides',
        into: 'zip',
        rows: { [piece.id]: { stem: 'hide-three' } },
      }),
    );
    expect((await assetOf(piece.id)).stem).toBe(piece.stem);
    const zip = v.parse(v.instance(Buffer), (await server.ask(ended.file ?? '')).body);
    const files = unzipSync(zip);
    const text = (name: string) => Buffer.from(files[name] ?? []).toString();
    expect(
      Object.keys(files)
        .filter((name) => !name.endsWith('/'))
        .sort(),
    ).toEqual(['hides/hide-three--400.jpg', 'hides/hide-three--400.webp', 'manifest.csv', 'manifest.json']);
    const csv = text('manifest.csv');
    expect(csv.split('\r\n')).toHaveLength(4);
    expect(csv).toContain('"Hide, ""No. 3"""');
    expect(csv).toContain("'=Okonjo");
    const { width } = await sharp(files['hides/hide-three--400.jpg']).metadata();
    expect(width).toBe(400);
  });
});

async function shaOf(id: string): Promise<string> {
  const [row] = await server.context.db.select({ sha: held.sha256 }).from(held).where(eq(held.id, id));
  if (!row) throw new Error('no such piece');
  return row.sha;
}

async function withPresets(cutPresets: readonly object[]): Promise<void> {
  const [target] = await server.context.db.select().from(targets).where(eq(targets.id, 'reserve'));
  if (!target) throw new Error('no target');
  const rules = { ...target.rules, cutPresets: cutPresets as typeof target.rules.cutPresets };
  await server.context.db.update(targets).set({ rules }).where(eq(targets.id, 'reserve'));
}
