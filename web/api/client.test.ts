import { afterEach, describe, expect, it, vi } from 'vitest';
import { ReplacedSchema } from '#api/assets.ts';
import { BeginningSchema } from '#api/people.ts';
import { MadeSchema } from '#api/problem.ts';
import type { Step } from '#api/progress.ts';
import { ApiProblem, addressOf, requestJson, requestVoid, sayFailure } from './client.ts';

/** What the server answers to the next request; the answer is what was asked of it. */
function answers(status: number, body: unknown): { path: string; init: RequestInit } {
  const asked = { path: '', init: {} as RequestInit };
  vi.stubGlobal('fetch', async (path: string, init: RequestInit) => {
    Object.assign(asked, { path, init });
    return new Response(body === null ? null : typeof body === 'string' ? body : JSON.stringify(body), {
      status,
    });
  });
  return asked;
}

async function problemOf(asking: Promise<unknown>): Promise<ApiProblem> {
  const error = await asking.then(
    () => null,
    (reason: unknown) => reason,
  );
  if (error instanceof ApiProblem) return error;
  throw new Error(`No problem was answered, but ${String(error)}.`);
}

afterEach(() => vi.unstubAllGlobals());

describe('asking the server', () => {
  it('is told on the way how far work is, and reads the answer from the last line', async () => {
    const steps: Step[] = [];
    const lines = (...all: readonly object[]) => {
      const bytes = new TextEncoder().encode(all.map((line) => `${JSON.stringify(line)}\n`).join(''));
      // In pieces that end anywhere, within a letter too.
      const body = new ReadableStream<Uint8Array>({
        start: (to) => {
          for (let at = 0; at < bytes.length; at += 7) to.enqueue(bytes.slice(at, at + 7));
          to.close();
        },
      });
      vi.stubGlobal(
        'fetch',
        async () => new Response(body, { headers: { 'content-type': 'application/x-ndjson' } }),
      );
      const asked = {
        path: { id: 'heron' },
        body: { by: 'reeds' },
        onStep: (step: Step) => steps.push(step),
      };
      return requestJson('post /assets/{id}/replace', ReplacedSchema, asked);
    };
    const answer = { pages: 2, at: '2026-06-12T09:00:00.000Z' };
    expect(await lines({ done: 1, of: 2 }, { done: 2, of: 2 }, { answer })).toEqual(answer);
    expect(steps).toEqual([
      { done: 1, of: 2 },
      { done: 2, of: 2 },
    ]);
    const problem = { type: 'about:blank', title: 'Conflict', status: 409, detail: '“Tîdes” stays.' };
    expect(await problemOf(lines({ done: 1, of: 2 }, { problem }))).toMatchObject({
      status: 409,
      message: '“Tîdes” stays.',
    });
    // A line that was cut off is one whose answer did not come: it is asked again.
    vi.useFakeTimers();
    const cut = problemOf(lines({ done: 1, of: 2 }));
    await vi.runAllTimersAsync();
    expect((await cut).status).toBe(0);
    vi.useRealTimers();
  });

  it('reads the answer into its type', async () => {
    const asked = answers(200, { isOpen: true, more: 'is left out' });
    expect(await requestJson('get /beginning', BeginningSchema)).toEqual({ isOpen: true });
    expect(asked.path).toBe('/api/beginning');
    expect(asked.init).toMatchObject({ method: 'GET', headers: {} });
    expect(asked.init.body).toBeUndefined();
  });

  it('takes no answer that is not of its type', async () => {
    answers(200, { isOpen: 'wide' });
    const { message } = await problemOf(requestJson('get /beginning', BeginningSchema));
    expect(message).toContain('Placard was renewed since this window was opened');
  });

  it('sends a write whose answer did not come again, under the same key', async () => {
    const keys: (string | null)[] = [];
    vi.stubGlobal('fetch', async (_path: string, init: RequestInit) => {
      keys.push(new Headers(init.headers).get('idempotency-key'));
      if (keys.length === 1) throw new TypeError('Failed to fetch');
      return new Response(JSON.stringify({ id: 'tides' }), { status: keys.length === 2 ? 503 : 201 });
    });
    const body = { title: 'Tides', targetId: 'reserve', due: null, wants: [] };
    expect(await requestJson('post /pages', MadeSchema, { body })).toEqual({ id: 'tides' });
    expect(keys).toHaveLength(3);
    expect(new Set(keys).size).toBe(1);
    expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);
  });

  it('sends what is written with the version that it was made on', async () => {
    const asked = answers(204, null);
    await requestVoid('put /me/password', { body: { now: 'before', next: 'after' }, version: 4 });
    expect(asked.init).toMatchObject({
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', 'If-Match': '"4"' },
      body: '{"now":"before","next":"after"}',
    });
  });

  it.each([
    [400, false],
    [404, false],
    [412, false],
    [429, true],
    [500, true],
    [503, true],
  ])('throws the sentence of a problem of %i; it passes: %s', async (status, isPassing) => {
    const body = {
      type: 'about:blank',
      title: 'No',
      status,
      detail: 'Somebody changed it meanwhile.',
      at: 7,
    };
    answers(status, body);
    const problem = await problemOf(requestJson('get /beginning', BeginningSchema));
    expect(problem).toMatchObject({ status, isPassing, message: 'Somebody changed it meanwhile.', body });
  });

  it.each(['<h1>Bad gateway</h1>', '{"oops":', '"words"', {}])(
    'says the status of an answer that is no problem document: %j',
    async (body) => {
      answers(502, body);
      const problem = await problemOf(requestVoid('post /clippers'));
      expect(problem.message).toBe('Placard answered with 502.');
      expect(problem.isPassing).toBe(true);
    },
  );

  it('says that what was written is kept where the server cannot be reached', async () => {
    const gone = new TypeError('fetch failed');
    vi.stubGlobal('fetch', () => Promise.reject(gone));
    const problem = await problemOf(requestJson('get /beginning', BeginningSchema));
    expect(problem).toMatchObject({ status: 0, isPassing: true, cause: gone });
    expect(problem.message).toContain('kept on this machine');
  });

  it('outlives its window where it is a write, as far as the browser carries them', async () => {
    const asked: (boolean | undefined)[] = [];
    let answer = () => {};
    const later = new Promise<void>((resolve) => {
      answer = resolve;
    });
    vi.stubGlobal('fetch', async (_path: string, { keepalive }: RequestInit) => {
      asked.push(keepalive);
      await later;
      return new Response(null, { status: 204 });
    });
    const add = Array.from({ length: 500 }, () => crypto.randomUUID());
    const put = () =>
      requestVoid('post /pages/{id}/tray', { path: { id: 'a' }, body: { add, remove: [], wantId: null } });
    const first = [
      put(),
      put(),
      put(),
      put(),
      requestVoid('get /pages/{id}/findings', { path: { id: 'a' } }),
    ];
    expect(asked).toEqual([true, true, true, undefined, undefined]);
    answer();
    await Promise.all(first);
    await put();
    expect(asked.at(-1)).toBe(true);
  });

  it('is no failure of the server where the asking was called off', async () => {
    const calledOff = new AbortController();
    calledOff.abort();
    vi.stubGlobal('fetch', () => Promise.reject(calledOff.signal.reason));
    await expect(requestJson('get /beginning', BeginningSchema, { signal: calledOff.signal })).rejects.toBe(
      calledOff.signal.reason,
    );
  });
});

it('an address has the names of its path and its query in it, and nothing that was not said', () => {
  expect(addressOf('get /jobs/{id}/events', { path: { id: 'a b/c' } })).toBe('/api/jobs/a%20b%2Fc/events');
  expect(addressOf('get /assets', { query: { words: 'reed & sedge', folder: '', cursor: undefined } })).toBe(
    '/api/assets?words=reed+%26+sedge',
  );
});

it('a fault of the screen is not said in the words of a program', () => {
  expect(sayFailure(new ApiProblem(409, 'The name is taken.', null))).toBe('The name is taken.');
  expect(sayFailure(new TypeError('undefined is not a function'))).not.toContain('undefined');
});
