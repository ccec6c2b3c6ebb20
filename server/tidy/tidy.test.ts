import { mkdir, readdir, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { assets, cuts, held, jobs, removals, sessions, settings, uploads } from '../db/schema.ts';
import { addJob } from '../jobs/queue.ts';
import { bundleKey, cutKey, originalKey } from '../storage/storage.ts';
import { arrivedOf, startTestServer, type TestServer } from '../testing.ts';
import { carryOutRemovals, orderRemovals } from './removals.ts';
import { tidy } from './tidy.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('tidy', { env: { PLACARD_KEEP_DAYS: 'uploads=2 bundles=3, jobs=10' } });
});
afterAll(() => server.close());
beforeEach(() => server.context.db.delete(settings).where(eq(settings.name, 'swept-at')));

const DAY_MILLIS = 24 * 60 * 60 * 1000;
const NOW = new Date();
const daysAgo = (days: number) => new Date(NOW.getTime() - days * DAY_MILLIS);

let shade = 0;
async function handIn() {
  shade += 20;
  const bytes = await sharp({
    create: { width: 300, height: 200, channels: 3, background: { r: shade, g: 9, b: 9 } },
  })
    .jpeg()
    .toBuffer();
  const { asset } = arrivedOf(await server.handIn(bytes, 'a.jpg'));
  const [row] = await server.context.db.select().from(held).where(eq(held.id, asset.id));
  if (!row) throw new Error('It is not there.');
  return { row, bytes };
}

async function oldFile(path: string, days: number): Promise<void> {
  await mkdir(join(path, '..'), { recursive: true });
  await writeFile(path, 'left');
  await utimes(path, daysAgo(days), daysAgo(days));
}

describe('tidying up', () => {
  it('removes what its days are over for, says how much, and leaves what is in use', async () => {
    const { db, storage } = server.context;
    const { row } = await handIn();
    await db.insert(sessions).values({ id: 'over', data: {}, expiresAt: daysAgo(1) });
    await db.insert(uploads).values([
      { id: 'a'.repeat(32), personId: 'mara', bytes: 4, at: daysAgo(3) },
      { id: 'b'.repeat(32), personId: 'mara', bytes: 4, at: daysAgo(1) },
    ]);
    const folder = join(server.folder, 'uploads');
    await oldFile(join(folder, 'a'.repeat(32)), 3);
    await oldFile(join(folder, 'b'.repeat(32)), 3);
    await oldFile(join(folder, 'gather-gone'), 3);
    await oldFile(join(server.folder, 'work', 'job-x', 'page.zip'), 3);
    await utimes(join(server.folder, 'work', 'job-x'), daysAgo(3), daysAgo(3));
    await oldFile(join(server.folder, 'files', `${originalKey(row.sha256)}.0.part`), 3);
    const made = await addJob(
      server.context,
      { kind: 'run', title: 'x', input: {}, personId: 'mara' },
      daysAgo(4),
    );
    await storage.put(bundleKey(made), Buffer.from('PK'));
    await db
      .update(jobs)
      .set({ state: 'done', resultKey: bundleKey(made) })
      .where(eq(jobs.id, made));
    const tidied = await tidy(server.context, NOW);
    expect(tidied).toMatchObject({ sessions: 1, uploads: 2, bundles: 1, jobs: 0, leavings: 2, missing: 0 });
    expect((await readdir(folder)).sort()).toEqual(['b'.repeat(32)]);
    expect(await storage.has(bundleKey(made))).toBe(false);
    expect((await server.ask(`/api/jobs/${made}`)).body).toMatchObject({ file: null });
    expect(await storage.has(originalKey(row.sha256))).toBe(true);
    expect(Object.values(await tidy(server.context, NOW)).every((count) => count === 0)).toBe(true);
    expect(await tidy(server.context, new Date(NOW.getTime() + 7 * DAY_MILLIS))).toMatchObject({ jobs: 1 });
  });

  it('finds files without a row once they are old enough, and pieces without their original', async () => {
    const { storage, db } = server.context;
    const { row } = await handIn();
    const gone = 'f'.repeat(64);
    const strays = [
      originalKey(gone),
      cutKey(gone, 'whole', 300, 'webp', 80),
      cutKey(row.sha256, 'whole', 123, 'webp', 80),
    ];
    for (const key of strays) await storage.put(key, Buffer.from('stray'));
    expect(await tidy(server.context, NOW)).toMatchObject({ strays: 0 });
    for (const key of strays) {
      const path = join(server.folder, 'files', key);
      await utimes(path, daysAgo(2), daysAgo(2));
    }
    await db.delete(settings).where(eq(settings.name, 'swept-at'));
    expect(await tidy(server.context, NOW)).toMatchObject({ strays: 3, files: 3 });
    const [thumb] = await db.select().from(cuts).where(eq(cuts.assetId, row.id));
    expect(
      await storage.has(cutKey(row.sha256, 'whole', thumb?.widthPx ?? 0, 'webp', thumb?.quality ?? 0)),
    ).toBe(true);
    await storage.remove(originalKey(row.sha256));
    await db.delete(settings).where(eq(settings.name, 'swept-at'));
    expect(await tidy(server.context, NOW)).toMatchObject({ missing: 1 });
  });
});

describe('a file that is to be removed', () => {
  it('stays where it came in again meanwhile', async () => {
    const { row, bytes } = await handIn();
    const { db, storage } = server.context;
    await orderRemovals(db, [originalKey(row.sha256)], NOW);
    expect(await carryOutRemovals(server.context)).toBe(0);
    expect(await storage.has(originalKey(row.sha256))).toBe(true);
    // Gone from the shelf for good, and handed in once more while its file is still to be removed.
    await db.delete(assets).where(eq(assets.id, row.id));
    await orderRemovals(db, [originalKey(row.sha256)], NOW);
    const again = arrivedOf(await server.handIn(bytes, 'again.jpg'));
    expect(again.isNew).toBe(true);
    await carryOutRemovals(server.context);
    expect(await storage.has(originalKey(row.sha256))).toBe(true);
    expect(await db.select().from(removals)).toEqual([]);
  });

  it('and one that comes in while it is removed are both there in the end', async () => {
    for (let round = 0; round < 5; round += 1) {
      const { row, bytes } = await handIn();
      const { db, storage } = server.context;
      await db.delete(assets).where(eq(assets.id, row.id));
      await orderRemovals(db, [originalKey(row.sha256)], NOW);
      const [again] = await Promise.all([server.handIn(bytes, 'race.jpg'), carryOutRemovals(server.context)]);
      expect(arrivedOf(again).isNew).toBe(true);
      await carryOutRemovals(server.context);
      expect(await storage.has(originalKey(row.sha256))).toBe(true);
    }
  });
});
