import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { jobs } from '../db/schema.ts';
import { startTestServer, type TestServer } from '../testing.ts';
import {
  AttemptLost,
  addJob,
  endJob,
  LEASE_MILLIS,
  putBack,
  readJob,
  renewLease,
  reportJob,
  takeJob,
} from './queue.ts';
import { workJobs, workOne } from './worker.ts';

let server: TestServer;
const NOON = new Date('2026-06-01T12:00:00Z');
const after = (millis: number) => new Date(NOON.getTime() + millis);

beforeAll(async () => {
  server = await startTestServer('worker');
});

afterAll(() => server.close());

async function order(kind: string, at = NOON): Promise<string> {
  await server.context.db.delete(jobs);
  return addJob(server.context, { kind, title: kind, input: {}, personId: 'mara' }, at);
}

test('a kind of work is taken only by those who do that kind', async () => {
  const id = await order('run');
  expect(await takeJob(server.context, ['gather'], NOON)).toBeUndefined();
  expect((await takeJob(server.context, ['gather', 'run'], NOON))?.id).toBe(id);
});

test('what is being worked is left alone until its lease runs out', async () => {
  const id = await order('run');
  await takeJob(server.context, ['run'], NOON);
  expect(await takeJob(server.context, ['run'], after(LEASE_MILLIS - 1))).toBeUndefined();
  expect((await takeJob(server.context, ['run'], after(LEASE_MILLIS + 1)))?.id).toBe(id);
});

test('work that was interrupted ten times without going forward is given up, and says so', async () => {
  const id = await order('run');
  for (let tries = 0; tries < 10; tries += 1)
    await takeJob(server.context, ['run'], after(tries * 2 * LEASE_MILLIS));
  expect(await takeJob(server.context, ['run'], after(21 * LEASE_MILLIS))).toBeUndefined();
  const job = await readJob(server.context, id);
  expect(job.state).toBe('failed');
  expect(job.words).toMatch(/^It was interrupted 10 times without going forward/);
});

test('work that goes forward may be interrupted however often', async () => {
  const id = await order('run');
  for (let tries = 0; tries < 12; tries += 1) {
    const at = after(tries * 2 * LEASE_MILLIS);
    const job = await takeJob(server.context, ['run'], at);
    if (!job) throw new Error(`It was given up after ${tries} interruptions.`);
    await reportJob(server.context, job, { done: tries + 1, of: 10, words: '' }, at);
  }
  expect((await readJob(server.context, id)).state).toBe('running');
});

test('work that is put back was not interrupted', async () => {
  const id = await order('run');
  for (let tries = 0; tries < 12; tries += 1) {
    const job = await takeJob(server.context, ['run'], NOON);
    if (!job) throw new Error(`It was given up after ${tries} times.`);
    await putBack(server.context, job);
  }
  expect(await readJob(server.context, id)).toMatchObject({ state: 'waiting', attempts: 0 });
});

test('an attempt that was taken over neither reports nor ends what another one works', async () => {
  const id = await order('run');
  const late = await takeJob(server.context, ['run'], NOON);
  const other = await takeJob(server.context, ['run'], after(LEASE_MILLIS + 1));
  if (!late || !other) throw new Error('It was not taken twice.');
  const progress = { done: 9, of: 9, words: 'Too late' };
  await expect(reportJob(server.context, late, progress, NOON)).rejects.toThrow(AttemptLost);
  await expect(renewLease(server.context, late, NOON)).rejects.toThrow(AttemptLost);
  expect(await endJob(server.context, late, { state: 'failed', words: 'Too late' })).toBe(false);
  await putBack(server.context, late);
  expect(await readJob(server.context, id)).toMatchObject({ state: 'running', doneSteps: 0, words: '' });
  expect(await endJob(server.context, other, { state: 'done', words: 'All of it' })).toBe(true);
});

test('work that cannot be done fails with a sentence, and the next is taken', async () => {
  const id = await order('gather');
  await server.context.db.update(jobs).set({ input: 'nonsense' }).where(eq(jobs.id, id));
  expect(await workOne(server.context)).toBe(true);
  expect((await readJob(server.context, id)).words).toMatch(/^It did not work\. Nothing was changed/);
  expect(await workOne(server.context)).toBe(false);
});

test('work that the end of its process cuts off is put back, and was not interrupted', async () => {
  const id = await order('gather');
  await server.context.db
    .update(jobs)
    .set({ input: { pageId: null, wantId: null, folder: '', licence: null } })
    .where(eq(jobs.id, id));
  expect(await workOne({ ...server.context, ending: AbortSignal.abort() })).toBe(true);
  expect(await readJob(server.context, id)).toMatchObject({ state: 'waiting', attempts: 0 });
  expect(await workOne(server.context)).toBe(true);
  expect((await readJob(server.context, id)).state).toBe('done');
});

test('the workers end when they are told to', async () => {
  const ending = new AbortController();
  const working = workJobs(server.context, ending.signal);
  ending.abort();
  await expect(working).resolves.toBeUndefined();
});
