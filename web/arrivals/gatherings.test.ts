// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Gathering, Taking } from '#api/gather.ts';
import { exampleAsset } from '../testing.tsx';
import { ledger } from '../undo/ledger.ts';
import { onTray } from './arrivals.ts';
import {
  clearGatherings,
  findGatherings,
  gather,
  gathered,
  gatherings,
  goOnWithGathering,
  isHalted,
  isOpen,
  stopGathering,
} from './gatherings.ts';

const taking = (id: string, change: Partial<Taking> = {}): Taking => ({
  ordinal: 0,
  name: id,
  state: 'waiting',
  sentence: '',
  asset: null,
  isNew: false,
  ...change,
});
const came = (id: string, isNew = true) => taking(id, { state: 'in', asset: exampleAsset({ id }), isNew });
let jobs = 0;
const gathering = (change: Partial<Gathering> = {}): Gathering => ({
  jobId: `job-${jobs}`,
  state: 'running',
  words: '',
  pageId: null,
  takings: [taking('a')],
  ...change,
});

const WISH = { seals: ['a'], pageId: null, wantId: null, folder: '', licence: null };
const JOB = {
  id: 'job',
  kind: 'gather',
  title: 'Gathering',
  state: 'running',
  done: 0,
  of: 1,
  words: '',
  file: null,
  bytes: null,
};
/** What the server has of the gathering; each look sees it as it is by then. */
let now: Gathering;
const asked: string[] = [];

beforeEach(() => {
  jobs += 1;
  now = gathering();
  vi.useFakeTimers({ toFake: ['setTimeout'] });
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (path, init) => {
    asked.push(`${init?.method ?? 'GET'} ${path}`);
    if (String(path).endsWith('/go-on')) return new Response(JSON.stringify(JOB));
    if (path === '/api/gatherings' && init?.method !== 'POST') return new Response(JSON.stringify([now]));
    if (/\/(?:assets|pages)\//.test(String(path))) return new Response(null, { status: 204 });
    return new Response(JSON.stringify(now));
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
  gatherings.set([]);
  ledger.forget('gather');
  asked.length = 0;
});

const looked = () => vi.advanceTimersByTimeAsync(400);
const stateNow = () => gatherings.state.map(({ state }) => state);

describe('a gathering', () => {
  it('is followed until it is over, and those who wait for it are told', async () => {
    const ordered = await gather(WISH);
    const over = gathered(ordered.jobId);
    expect(stateNow()).toEqual(['running']);
    now = gathering({ state: 'done', takings: [came('a')] });
    await looked();
    expect((await over).state).toBe('done');
    const looks = asked.length;
    await looked();
    expect(asked).toHaveLength(looks);
    clearGatherings();
    expect(stateNow()).toEqual([]);
  });

  it('is followed on when the line was cut for a while', async () => {
    await gather(WISH);
    vi.spyOn(globalThis, 'fetch').mockRejectedValueOnce(new TypeError('offline'));
    await looked();
    now = gathering({ state: 'done' });
    await vi.advanceTimersByTimeAsync(3500);
    expect(stateNow()).toEqual(['done']);
  });

  it('that runs on the server is found after a reload, and one that is over is not', async () => {
    await findGatherings();
    expect(stateNow()).toEqual(['running']);
    now = gathering({ state: 'stopped' });
    await looked();
    gatherings.set([]);
    await findGatherings();
    expect(stateNow()).toEqual([]);
  });

  it('is stopped, says what is left of it, and goes on', async () => {
    await gather(WISH);
    now = gathering({ state: 'stopped', takings: [came('a'), taking('b', { state: 'stopped' })] });
    await stopGathering(now.jobId);
    await looked();
    const [stopped] = gatherings.state;
    expect(stopped && [isOpen(stopped), isHalted(stopped)]).toEqual([false, true]);
    now = gathering({ state: 'running' });
    await goOnWithGathering(now.jobId);
    expect(stateNow()).toEqual(['running']);
    now = gathering({ state: 'done' });
    await looked();
    expect(stateNow()).toEqual(['done']);
    expect(isHalted(now)).toBe(false);
  });
});

describe('what was gathered', () => {
  const step = () => ledger.store.state.done.at(-1);

  it('is taken back and brought back as one step: what was new is put away, what was held stays', async () => {
    await gather({ ...WISH, pageId: 'tides' });
    const told = vi.fn();
    onTray.addEventListener('change', told, { once: true });
    now = gathering({ state: 'done', pageId: 'tides', takings: [came('a'), came('b', false)] });
    await looked();
    expect(told).toHaveBeenCalledOnce();
    expect(step()?.name).toBe('gathering 2 pictures');
    asked.length = 0;
    await step()?.undo();
    expect(asked).toEqual(['POST /api/pages/tides/tray', 'DELETE /api/assets/a']);
    asked.length = 0;
    await step()?.redo();
    expect(asked).toEqual(['POST /api/assets/a/bring-back', 'POST /api/pages/tides/tray']);
  });

  it('touches no tray where it was for no page', async () => {
    await gather(WISH);
    now = gathering({ state: 'done', takings: [came('a')] });
    await looked();
    expect(step()?.name).toBe('gathering a picture');
    asked.length = 0;
    await step()?.undo();
    await step()?.redo();
    expect(asked).toEqual(['DELETE /api/assets/a', 'POST /api/assets/a/bring-back']);
  });

  it('leaves no step where nothing came', async () => {
    await gather(WISH);
    now = gathering({ state: 'failed', takings: [taking('a', { state: 'refused' })] });
    await looked();
    expect(step()).toBeUndefined();
  });
});
