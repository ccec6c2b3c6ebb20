import { expect, it } from 'vitest';
import { seldom } from './seldom.ts';
import { Stopped } from './work.ts';

it('passes the first report on at once, and of many after it few', async () => {
  const told: number[] = [];
  const tell = seldom(async (step: number) => void told.push(step), new AbortController().signal);
  for (let step = 0; step < 1000; step += 1) await tell(step);
  expect(told[0]).toBe(0);
  expect(told.length).toBeLessThan(100);
});

it('heeds at each step what stops the work', async () => {
  const stopping = new AbortController();
  const tell = seldom(async () => undefined, stopping.signal);
  await tell();
  stopping.abort();
  await expect(tell()).rejects.toBeInstanceOf(Stopped);
});
