import { getEventListeners } from 'node:events';
import { afterAll, describe, expect, it } from 'vitest';
import { ForeignProblem } from './problem.ts';
import { ProcessPool } from './process-pool.ts';
import { textTool } from './texts.ts';

const limits = { processes: 1, bytes: 300_000_000, idleMillis: 60_000 };
const pool = new ProcessPool(new URL('./testing-process.ts', import.meta.url), limits);
afterAll(() => pool.end());

const faultOf = (work: Promise<unknown>) =>
  work.then(
    () => 'none',
    (error: unknown) => (error instanceof ForeignProblem ? error.fault : String(error)),
  );

describe('work in a process of its own', () => {
  it('answers, with bytes as bytes and errors as errors', async () => {
    const bytes = await pool.run('double', Buffer.from([1, 2]), { millis: 20_000 });
    expect(Buffer.isBuffer(bytes) && [...bytes]).toEqual([1, 2, 1, 2]);
    await expect(pool.run('refuse', null, { millis: 20_000 })).rejects.toMatchObject({ status: 415 });
    await expect(pool.run('full', null, { millis: 20_000 })).rejects.toMatchObject({ code: 'ENOSPC' });
    await expect(pool.run('toString', null, { millis: 20_000 })).rejects.toThrow('There is no task');
  });

  it('that takes too long is ended in the middle of it, and the next is worked', async () => {
    const endless = faultOf(pool.run('endless', null, { millis: 400 }));
    const next = pool.run('double', Buffer.from([3]), { millis: 20_000 });
    expect(await endless).toBe('too-long');
    expect(await next).toEqual(Buffer.from([3, 3]));
  });

  it('that had no turn to compute is waited for, though not for ever', async () => {
    await pool.run('idle', 0, { millis: 20_000 });
    expect(await pool.run('idle', 1200, { millis: 400 })).toBe('done');
    expect(await faultOf(pool.run('idle', 60_000, { millis: 200 }))).toBe('too-long');
  });

  it('that takes too much memory is ended', async () => {
    expect(await faultOf(pool.run('hoard', null, { millis: 30_000 }))).toBe('too-much-memory');
  });

  it('that ends its process ends nothing else', async () => {
    expect(await faultOf(pool.run('die', null, { millis: 20_000 }))).toBe('ended');
    expect(await pool.run('double', Buffer.from([4]), { millis: 20_000 })).toEqual(Buffer.from([4, 4]));
  });

  it('is dropped when nobody waits for it, whether it runs or waits', async () => {
    const [runs, waits] = [new AbortController(), new AbortController()];
    const running = faultOf(pool.run('endless', null, { millis: 60_000, signal: runs.signal }));
    const waiting = faultOf(pool.run('endless', null, { millis: 60_000, signal: waits.signal }));
    waits.abort();
    expect(await waiting).toBe('stopped');
    runs.abort();
    expect(await running).toBe('stopped');
    expect(await faultOf(pool.run('double', Buffer.from([5]), { millis: 20_000 }))).toBe('none');
  });

  it('is held on to by no signal once it is done', async () => {
    const { signal } = new AbortController();
    await pool.run('double', Buffer.from([6]), { millis: 20_000, signal });
    await faultOf(pool.run('refuse', null, { millis: 20_000, signal }));
    expect(getEventListeners(signal, 'abort')).toEqual([]);
  });

  it('knows nothing of the house', async () => {
    process.env.HOUSE_SECRET = 'for the server alone';
    const names = await pool.run('environment', null, { millis: 20_000 });
    expect(names).not.toContain('HOUSE_SECRET');
    expect(names).not.toContain('TEST_DATABASE_SERVER');
  });
});

describe('text from outside', () => {
  it('is read beside the event loop, and given up after its time', async () => {
    const texts = textTool(1);
    const html = '<figure><img src=a.jpg>'.repeat(40_000);
    expect(await faultOf(texts.pagePictures({ html, base: 'https://saltmere.example/' }))).toBe('too-long');
    await texts.end();
  });
});
