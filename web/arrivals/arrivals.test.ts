// @vitest-environment jsdom
import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Asset } from '#api/assets.ts';
import { exampleAsset } from '../testing.tsx';
import type { FoundFile } from './dropped.ts';
import type { KeptFile } from './kept-files.ts';

/** An upload under way, as the one who sends it sees it from outside: nothing moves until the test says so. */
interface Line {
  readonly file: File;
  readonly options: {
    readonly metadata: Readonly<Record<string, string>>;
    readonly onProgress: (sent: number) => void;
    readonly onError: (error: Error) => void;
    readonly onSuccess: () => void;
  };
  url: string;
  isStarted: boolean;
  ended: 'kept' | 'forgotten' | null;
  readonly findPreviousUploads: () => Promise<readonly unknown[]>;
  readonly resumeFromPreviousUpload: (earlier: unknown) => void;
  readonly start: () => void;
  readonly abort: (forget?: boolean) => Promise<void>;
}

class DetailedError extends Error {
  readonly originalResponse;
  constructor(status: number, body: string) {
    super(body);
    this.originalResponse = { getStatus: () => status, getBody: () => body };
  }
}

const lines: Line[] = [];
const earlier: unknown[] = [];
const kept = new Map<string, KeptFile>();
const posted: { path: string; body: unknown }[] = [];
let answer: (path: string) => Response = () => new Response(null, { status: 204 });

function makeLine(file: File, options: Line['options']): Line {
  const line: Line = {
    file,
    options,
    url: `/api/uploads/up-${lines.length}`,
    isStarted: false,
    ended: null,
    findPreviousUploads: async () => earlier,
    resumeFromPreviousUpload: () => {
      line.url = '/api/uploads/earlier';
    },
    start: () => {
      line.isStarted = true;
    },
    abort: async (forget = false) => {
      line.ended = forget ? 'forgotten' : 'kept';
    },
  };
  lines.push(line);
  return line;
}

vi.resetModules();
vi.doMock('tus-js-client', () => ({
  DetailedError,
  // biome-ignore lint/complexity/useArrowFunction: it is called with `new`
  Upload: function (file: File, options: Line['options']) {
    return makeLine(file, options);
  },
}));
vi.doMock('./kept-files.ts', () => ({
  keepFile: async (one: KeptFile, isStillComing: () => boolean) => {
    if (isStillComing()) kept.set(one.id, one);
  },
  forgetFile: async (id: string) => void kept.delete(id),
  isKept: async (id: string) => kept.has(id),
  keptFiles: async () => [...kept.values()],
}));
const {
  arrivals,
  bringIn,
  clearArrivals,
  goOn,
  onTray,
  pauseAll,
  pauseArrival,
  putOnTray,
  resumeAll,
  resumeArrival,
  stopAll,
  stopArrival,
  takeOffTray,
} = await import('./arrivals.ts');
vi.doUnmock('./kept-files.ts');

const NOWHERE = { pageId: null, wantId: null };
const found = (name: string, bytes = 3, folder = ''): FoundFile => ({
  file: new File(['a'.repeat(bytes)], name),
  folder,
});
const stateOf = (name: string) => arrivals.state.find((one) => one.name === name)?.state;
const saidOf = (name: string) => arrivals.state.find((one) => one.name === name)?.sentence;
const idOf = (name: string) => arrivals.state.find((one) => one.name === name)?.id ?? '';
const lineOf = (name: string): Line => {
  const line = lines.findLast(({ file }) => file.name === name);
  if (!line) throw new Error(`${name} was not sent.`);
  return line;
};
const settled = (check: () => void) => vi.waitFor(check, { interval: 2 });

function json(body: unknown, status = 200): Response {
  return new Response(JSON.stringify(body), {
    status,
    headers: { 'content-type': status < 400 ? 'application/json' : 'application/problem+json' },
  });
}

const arrivedAs = (asset: Asset) =>
  json({ asset, isNew: true, sentence: `Taken in as ${asset.stem}.`, comp: null });

beforeEach(() => {
  answer = (path) =>
    path === '/api/arrivals' ? arrivedAs(exampleAsset()) : new Response(null, { status: 204 });
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (path, init) => {
    posted.push({ path: String(path), body: JSON.parse(String(init?.body ?? 'null')) });
    return answer(String(path));
  });
});
afterEach(async () => {
  stopAll();
  clearArrivals();
  vi.useRealTimers();
  vi.restoreAllMocks();
  for (const all of [lines, earlier, posted]) all.length = 0;
  kept.clear();
});
afterAll(() => {
  vi.doUnmock('tus-js-client');
  vi.resetModules();
});

describe('files that come in', () => {
  it('are sent three at once, each into its folder below the one it was put in, and the next when one is in', async () => {
    bringIn([found('a.jpg'), found('b.jpg', 3, 'roof'), found('c.jpg'), found('d.jpg')], 'hides', NOWHERE);
    await settled(() => expect(lines.filter(({ isStarted }) => isStarted)).toHaveLength(3));
    expect(lineOf('a.jpg').options.metadata).toEqual({ filename: 'a.jpg', folder: 'hides' });
    expect(lineOf('b.jpg').options.metadata).toEqual({ filename: 'b.jpg', folder: 'hides/roof' });
    expect(stateOf('d.jpg')).toBe('waiting');
    lineOf('a.jpg').options.onSuccess();
    await settled(() => expect(lineOf('d.jpg').isStarted).toBe(true));
    expect(stateOf('a.jpg')).toBe('in');
    expect(saidOf('a.jpg')).toBe('Taken in as heron.');
    expect(posted).toEqual([{ path: '/api/arrivals', body: { uploadId: 'up-0' } }]);
  });

  it('say how much of them has come, and no oftener than can be seen', async () => {
    bringIn([found('a.jpg', 2000)], '', NOWHERE);
    await settled(() => expect(lines[0]?.isStarted).toBe(true));
    const clock = vi.spyOn(performance, 'now').mockReturnValue(1_000_000);
    lineOf('a.jpg').options.onProgress(500);
    expect(saidOf('a.jpg')).toBe('500 B of 2 kB');
    clock.mockReturnValue(1_000_050);
    lineOf('a.jpg').options.onProgress(900);
    expect(saidOf('a.jpg')).toBe('500 B of 2 kB');
    lineOf('a.jpg').options.onProgress(2000);
    expect(arrivals.state[0]).toMatchObject({ state: 'sending', sent: 2000 });
  });

  it('are refused at once where they are empty or too large, and the others go on', async () => {
    const huge = found('huge.tif');
    Object.defineProperty(huge.file, 'size', { value: 90_000_000 });
    vi.spyOn(globalThis, 'fetch').mockResolvedValue(
      new Response(null, { headers: { 'Tus-Max-Size': '50000000' } }),
    );
    bringIn([found('empty.jpg', 0), huge, found('a.jpg')], '', NOWHERE);
    await settled(() => expect(lines).toHaveLength(1));
    expect(saidOf('empty.jpg')).toBe(
      'empty.jpg is empty: it has no bytes. Copy it again from where it came.',
    );
    expect(saidOf('huge.tif')).toBe(
      'huge.tif is 90.0 MB, over the 50.0 MB that are taken. Make it smaller first.',
    );
    expect([stateOf('empty.jpg'), stateOf('huge.tif'), stateOf('a.jpg')]).toEqual([
      'refused',
      'refused',
      'sending',
    ]);
    clearArrivals();
    expect(arrivals.state.map(({ name }) => name)).toEqual(['a.jpg']);
  });

  it('go on from what an earlier load had sent', async () => {
    earlier.push({ urlStorageKey: 'x' });
    bringIn([found('a.jpg')], '', NOWHERE);
    await settled(() => expect(lines[0]?.isStarted).toBe(true));
    expect(lineOf('a.jpg').url).toBe('/api/uploads/earlier');
  });

  it('of an earlier load go on by themselves, once', async () => {
    kept.set('k', { id: 'k', file: new File(['abc'], 'left.jpg'), folder: 'hides', to: NOWHERE });
    await goOn();
    await settled(() => expect(lines.map(({ file }) => file.name)).toEqual(['left.jpg']));
    await goOn();
    expect(lines).toHaveLength(1);
    lineOf('left.jpg').options.onSuccess();
    await settled(() => expect(kept.size).toBe(0));
  });

  it('are kept until they are in, and forgotten then', async () => {
    bringIn([found('a.jpg')], '', NOWHERE);
    await settled(() => expect(kept.size).toBe(1));
    lineOf('a.jpg').options.onSuccess();
    await settled(() => expect(kept.size).toBe(0));
  });
});

describe('where they go', () => {
  const ON_TRAY = { pageId: 'tides', wantId: 'lead' };

  it('the server puts them on the tray, into the want that was named, where no screen does', async () => {
    const told = vi.fn();
    onTray.addEventListener('change', told, { once: true });
    bringIn([found('a.jpg')], '', ON_TRAY);
    await settled(() => expect(lines).toHaveLength(1));
    expect(lineOf('a.jpg').options.metadata.page).toBe('tides');
    lineOf('a.jpg').options.onSuccess();
    await settled(() => expect(stateOf('a.jpg')).toBe('in'));
    expect(posted[1]).toEqual({
      path: '/api/pages/tides/tray',
      body: { add: [exampleAsset().id], remove: [], wantId: 'lead' },
    });
    expect(told).toHaveBeenCalledOnce();
  });

  it('a screen that sees to the page itself is left to it', async () => {
    const onArrived = vi.fn(() => true);
    bringIn([found('a.jpg')], '', ON_TRAY, onArrived);
    await settled(() => expect(lines).toHaveLength(1));
    lineOf('a.jpg').options.onSuccess();
    await settled(() => expect(stateOf('a.jpg')).toBe('in'));
    expect(onArrived).toHaveBeenCalledOnce();
    expect(posted.map(({ path }) => path)).toEqual(['/api/arrivals']);
  });

  it('are put on a tray and taken off it by one operation', async () => {
    await putOnTray('tides', ['a', 'b'], null);
    await takeOffTray('tides', ['a']);
    expect(posted.map(({ body }) => body)).toEqual([
      { add: ['a', 'b'], remove: [], wantId: null },
      { add: [], remove: ['a'], wantId: null },
    ]);
  });
});

describe('what does not come in', () => {
  const sent = async (...names: string[]) => {
    bringIn(
      names.map((name) => found(name)),
      '',
      NOWHERE,
    );
    await settled(() =>
      expect(lines.filter(({ isStarted }) => isStarted)).toHaveLength(Math.min(3, names.length)),
    );
  };

  it.each([
    [413, 'a.jpg is 3 B, over what is taken.', 'refused', 'a.jpg is 3 B, over what is taken.'],
    [400, 'nonsense', 'refused', 'a.jpg was not taken.'],
    [409, '', 'cut', 'Waits for the line, goes on by itself'],
    [423, '', 'cut', 'Waits for the line, goes on by itself'],
    [429, '', 'cut', 'Waits for the line, goes on by itself'],
    [500, '', 'cut', 'Waits for the line, goes on by itself'],
  ])('answered %d "%s" it is %s', async (status, body, state, sentence) => {
    await sent('a.jpg');
    lineOf('a.jpg').options.onError(new DetailedError(status, body));
    expect([stateOf('a.jpg'), saidOf('a.jpg')]).toEqual([state, sentence]);
  });

  it('goes on by itself after a while when the line was cut, unless it was stopped meanwhile', async () => {
    await sent('a.jpg', 'b.jpg');
    vi.useFakeTimers({ toFake: ['setTimeout'] });
    for (const name of ['a.jpg', 'b.jpg']) lineOf(name).options.onError(new Error('no line'));
    expect([stateOf('a.jpg'), stateOf('b.jpg')]).toEqual(['cut', 'cut']);
    stopArrival(idOf('b.jpg'));
    vi.advanceTimersByTime(8000);
    vi.useRealTimers();
    await settled(() => expect(lines).toHaveLength(3));
    expect(lines[2]?.file.name).toBe('a.jpg');
    expect(stateOf('b.jpg')).toBeUndefined();
  });

  it('is said in the server’s words when it cannot be read, and tried again when the server only starts anew', async () => {
    await sent('a.jpg', 'b.jpg');
    const problem = { type: 'about:blank', title: 'No', status: 422, detail: 'words.jpg is not a picture.' };
    answer = () => json(problem, 422);
    lineOf('a.jpg').options.onSuccess();
    await settled(() => expect(stateOf('a.jpg')).toBe('refused'));
    expect(saidOf('a.jpg')).toBe('words.jpg is not a picture.');
    answer = () => json({ ...problem, status: 500 }, 500);
    lineOf('b.jpg').options.onSuccess();
    await settled(() => expect(stateOf('b.jpg')).toBe('cut'));
  });

  it('waits where it was paused, gives its place to the next, and goes on where it was', async () => {
    await sent('a.jpg', 'b.jpg', 'c.jpg', 'd.jpg', 'e.jpg');
    pauseArrival(idOf('e.jpg'));
    pauseArrival(idOf('a.jpg'));
    expect(lineOf('a.jpg').ended).toBe('kept');
    await settled(() => expect(lineOf('d.jpg').isStarted).toBe(true));
    expect([stateOf('a.jpg'), stateOf('e.jpg')]).toEqual(['paused', 'paused']);
    lineOf('b.jpg').options.onSuccess();
    await settled(() => expect(stateOf('b.jpg')).toBe('in'));
    expect(lines).toHaveLength(4);
    resumeArrival(idOf('a.jpg'));
    resumeArrival(idOf('a.jpg'));
    await settled(() => expect(lines).toHaveLength(5));
    expect(lines[4]?.file.name).toBe('a.jpg');
    expect(stateOf('a.jpg')).toBe('sending');
  });

  it('that was stopped before this tab had its hold on it does not come after all', async () => {
    let give = () => {};
    const held = new Promise<void>((resolve) => {
      give = resolve;
    });
    const locks = { request: (_name: string, work: () => Promise<void>) => held.then(work) };
    Object.defineProperty(navigator, 'locks', { value: locks, configurable: true });
    bringIn([found('a.jpg')], '', NOWHERE);
    await settled(() => expect(stateOf('a.jpg')).toBe('waiting'));
    stopAll();
    give();
    await new Promise((resolve) => setTimeout(resolve, 10));
    Reflect.deleteProperty(navigator, 'locks');
    expect([arrivals.state.length, lines.length]).toEqual([0, 0]);
  });

  it('can be paused, gone on with and stopped all at once; what is in stays said', async () => {
    await sent('a.jpg', 'b.jpg', 'c.jpg', 'd.jpg');
    lineOf('a.jpg').options.onSuccess();
    await settled(() => expect(stateOf('a.jpg')).toBe('in'));
    pauseAll();
    expect(arrivals.state.map(({ state }) => state)).toEqual(['in', 'paused', 'paused', 'paused']);
    resumeAll();
    await settled(() => expect(arrivals.state.slice(1).every(({ state }) => state === 'sending')).toBe(true));
    await settled(() => expect(lines.slice(-3).every(({ isStarted }) => isStarted)).toBe(true));
    stopAll();
    expect(arrivals.state.map(({ name }) => name)).toEqual(['a.jpg']);
    expect(lines.slice(-3).map(({ ended }) => ended)).toEqual(['forgotten', 'forgotten', 'forgotten']);
  });
});
