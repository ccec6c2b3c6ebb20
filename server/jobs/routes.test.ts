import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { jobs } from '../db/schema.ts';
import { bundleKey } from '../storage/storage.ts';
import { detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import {
  addJob,
  assertMayOrder,
  endJob,
  goOnWithJob,
  readJob,
  reportJob,
  type TakenJob,
  takeJob,
} from './queue.ts';

let server: TestServer;
const NOON = new Date('2026-06-01T12:00:00Z');

beforeAll(async () => {
  server = await startTestServer('jobs');
});

beforeEach(async () => {
  await server.context.db.delete(jobs);
});

afterAll(() => server.close());

function order(as: Who = 'mara', title = 'Taking “Marsh 1931” away'): Promise<string> {
  return addJob(server.context, { kind: 'run', title, input: {}, personId: as }, NOON);
}

async function take(): Promise<TakenJob> {
  const job = await takeJob(server.context, ['run'], NOON);
  if (!job) throw new Error('No job waits.');
  return job;
}

async function endWith(id: string, bytes: Buffer): Promise<void> {
  const job = await take();
  await server.context.storage.put(bundleKey(id), bytes);
  await endJob(server.context, job, {
    state: 'done',
    words: 'It is packed.',
    resultKey: bundleKey(id),
    resultBytes: bytes.length,
  });
}

describe('work under way', () => {
  it('says how far it is', async () => {
    const id = await order();
    const job = await take();
    await reportJob(server.context, job, { done: 3, of: 12, words: '3 of 12 cuts' }, NOON);
    const { body } = await server.ask(`/api/jobs/${id}`);
    expect(body).toEqual({
      id,
      kind: 'run',
      title: 'Taking “Marsh 1931” away',
      state: 'running',
      done: 3,
      of: 12,
      words: '3 of 12 cuts',
      file: null,
      bytes: null,
    });
  });

  it('tells each step until it has ended, and then no more', async () => {
    const id = await order();
    const job = await take();
    await reportJob(server.context, job, { done: 1, of: 2, words: 'Half of it' }, NOON);
    const { body, headers } = await server.listen(`/api/jobs/${id}/events`);
    expect(headers.get('content-type')).toContain('text/event-stream');
    let told = '';
    for await (const part of body?.pipeThrough(new TextDecoderStream()) ?? []) {
      // It ends when half of it was told, and not before.
      if (!told.includes('Half of it') && (told + part).includes('Half of it'))
        await endJob(server.context, job, { state: 'done', words: 'All of it' });
      told += part;
    }
    const events = told
      .split('\n\n')
      .filter((event) => event.startsWith('data: '))
      .map((event): { state: string; words: string } => JSON.parse(event.slice('data: '.length)));
    expect(events[0]?.state).toMatch(/waiting|running/);
    expect(events.some(({ words }) => words === 'Half of it')).toBe(true);
    expect(events.at(-1)).toMatchObject({ state: 'done', words: 'All of it' });
  });

  it('is stopped at once while it waits, and asked to stop while it is worked', async () => {
    const waiting = await order();
    await server.ask(`/api/jobs/${waiting}/stop`, { method: 'POST' });
    expect((await readJob(server.context, waiting)).state).toBe('stopped');
    expect(await takeJob(server.context, ['run'], NOON)).toBeUndefined();

    const worked = await order();
    const job = await take();
    const { status, body } = await server.ask(`/api/jobs/${worked}/stop`, { method: 'POST' });
    expect(status).toBe(202);
    expect(body).toMatchObject({ state: 'running' });
    expect(await reportJob(server.context, job, { done: 1, of: 2, words: '' }, NOON)).toBe(true);
  });

  it('goes on after it was stopped, with all its tries again', async () => {
    const id = await order();
    const job = await take();
    await server.ask(`/api/jobs/${id}/stop`, { method: 'POST' });
    await endJob(server.context, job, { state: 'stopped', words: 'Stopped.' });
    await goOnWithJob(server.context, id);
    expect(await readJob(server.context, id)).toMatchObject({
      state: 'waiting',
      stopAsked: false,
      attempts: 0,
    });
    expect((await takeJob(server.context, ['run'], NOON))?.id).toBe(id);
  });

  it('which is worked by somebody is not begun a second time', async () => {
    const id = await order();
    await take();
    await goOnWithJob(server.context, id);
    expect((await readJob(server.context, id)).state).toBe('running');
  });

  it('is taken once, however many workers ask at the same time', async () => {
    const ordered = await Promise.all([order(), order(), order()]);
    const taken = await Promise.all(Array.from({ length: 8 }, () => takeJob(server.context, ['run'], NOON)));
    const ids = taken.flatMap((job) => (job ? [job.id] : []));
    // Who finds the next one locked goes without; it is taken by whoever asks next.
    for (let left = ordered.length; left > 0; left -= 1) {
      const more = await takeJob(server.context, ['run'], NOON);
      if (more) ids.push(more.id);
    }
    expect(ids.sort()).toEqual(ordered.sort());
  });
});

describe('work that halted', () => {
  it('goes on when its own person says so, but a run by its own way', async () => {
    const wish = { kind: 'take-away', title: 'x', input: {}, personId: 'mara' };
    const id = await addJob(server.context, wish, NOON);
    const job = await takeJob(server.context, ['take-away'], NOON);
    if (!job) throw new Error('No job waits.');
    await endJob(server.context, job, { state: 'failed', words: 'No room.' });
    const goOn = (as: Who) => server.ask(`/api/jobs/${id}/go-on`, { as, method: 'POST' });
    expect((await goOn('piet')).status).toBe(404);
    expect((await goOn('mara')).body).toMatchObject({ state: 'waiting' });
    const run = await order();
    expect((await server.ask(`/api/jobs/${run}/go-on`, { method: 'POST' })).status).toBe(409);
  });

  it('is so many pieces of work at once for each person', async () => {
    for (let count = 0; count < 30; count += 1) await order('piet');
    await expect(assertMayOrder(server.context, 'piet')).rejects.toMatchObject({ status: 429 });
    await expect(assertMayOrder(server.context, 'mara')).resolves.toBeUndefined();
  });
});

describe('what work has made', () => {
  it('is fetched under the name of the work, in any script', async () => {
    const id = await order('mara', 'Gezeiten „dieser“ Woche / 1931');
    await endWith(id, Buffer.from('PK'));
    const { status, headers, body } = await server.ask(`/api/jobs/${id}/file`);
    expect(status).toBe(200);
    expect(headers.get('content-type')).toBe('application/zip');
    expect(headers.get('content-disposition')).toMatch(/^attachment; filename=/);
    expect(headers.get('content-disposition')).not.toContain('/ 1931');
    expect(body).toEqual(Buffer.from('PK'));
  });

  it('is not there before it has ended', async () => {
    const id = await order();
    const answer = await server.ask(`/api/jobs/${id}/file`);
    expect(answer.status).toBe(409);
    expect(detailOf(answer)).toContain('has not ended yet');
  });

  it.each(['', '/events', '/file'])('is nobody else’s business (%s)', async (path) => {
    const id = await order('piet');
    await endWith(id, Buffer.from('PK'));
    expect((await server.ask(`/api/jobs/${id}${path}`)).status).toBe(404);
    expect((await server.ask(`/api/jobs/${id}${path}`, { as: 'piet' })).status).toBe(200);
  });

  it('cannot be stopped by somebody else', async () => {
    const id = await order('piet');
    expect((await server.ask(`/api/jobs/${id}/stop`, { method: 'POST' })).status).toBe(404);
    expect((await readJob(server.context, id)).state).toBe('waiting');
  });

  it('is unknown under a made-up name', async () => {
    expect((await server.ask('/api/jobs/nothing')).status).toBe(404);
  });
});
