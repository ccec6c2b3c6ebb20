import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { jobs } from '../db/schema.ts';
import { startTestServer, type TestServer } from '../testing.ts';
import { addJob, LEASE_MILLIS, readJob, takeJob } from './queue.ts';
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

test('work that ended its worker three times is given up, and says so', async () => {
  const id = await order('run');
  for (let tries = 0; tries < 3; tries += 1)
    await takeJob(server.context, ['run'], after(tries * 2 * LEASE_MILLIS));
  expect(await takeJob(server.context, ['run'], after(7 * LEASE_MILLIS))).toBeUndefined();
  const job = await readJob(server.context, id);
  expect(job.state).toBe('failed');
  expect(job.words).toBe('It ended its worker three times and is not tried again.');
});

test('work that cannot be done fails with a sentence, and the next is taken', async () => {
  const id = await order('gather');
  await server.context.db.update(jobs).set({ input: 'nonsense' }).where(eq(jobs.id, id));
  expect(await workOne(server.context)).toBe(true);
  expect((await readJob(server.context, id)).words).toMatch(/^It did not work\. Nothing was changed/);
  expect(await workOne(server.context)).toBe(false);
});

test('the workers end when they are told to', async () => {
  const ending = new AbortController();
  const working = workJobs(server.context, ending.signal);
  ending.abort();
  await expect(working).resolves.toBeUndefined();
});
