import * as v from 'valibot';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem, requestJson, requestVoid, sayFailure } from './client.ts';

const SizeSchema = v.object({ width: v.number() });

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
  it('reads the answer into its type', async () => {
    const asked = answers(200, { width: 720, more: 'is left out' });
    expect(await requestJson(SizeSchema, '/targets/reserve')).toEqual({ width: 720 });
    expect(asked.path).toBe('/api/targets/reserve');
    expect(asked.init).toMatchObject({ method: 'GET', headers: {} });
    expect(asked.init.body).toBeUndefined();
  });

  it('takes no answer that is not of its type', async () => {
    answers(200, { width: 'wide' });
    const { message } = await problemOf(requestJson(SizeSchema, '/targets/reserve'));
    expect(message).toContain('Placard was renewed since this window was opened');
  });

  it('sends a write whose answer did not come again, under the same key', async () => {
    const keys: (string | null)[] = [];
    vi.stubGlobal('fetch', async (_path: string, init: RequestInit) => {
      keys.push(new Headers(init.headers).get('idempotency-key'));
      if (keys.length === 1) throw new TypeError('Failed to fetch');
      return new Response(JSON.stringify({ width: 1 }), { status: keys.length === 2 ? 503 : 201 });
    });
    expect(await requestJson(SizeSchema, '/pages', { method: 'POST', body: {} })).toEqual({ width: 1 });
    expect(keys).toHaveLength(3);
    expect(new Set(keys).size).toBe(1);
    expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);
  });

  it('sends what is written with the version that it was made on', async () => {
    const asked = answers(204, null);
    await requestVoid('/pages/tides', { method: 'PUT', body: { title: 'Tides' }, version: 4 });
    expect(asked.init).toMatchObject({
      method: 'PUT',
      headers: { 'Content-Type': 'application/json', 'If-Match': '"4"' },
      body: '{"title":"Tides"}',
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
    const problem = await problemOf(requestJson(SizeSchema, '/pages/tides'));
    expect(problem).toMatchObject({ status, isPassing, message: 'Somebody changed it meanwhile.', body });
  });

  it.each(['<h1>Bad gateway</h1>', '{"oops":', '"words"', {}])(
    'says the status of an answer that is no problem document: %j',
    async (body) => {
      answers(502, body);
      const problem = await problemOf(requestVoid('/pages', { method: 'POST' }));
      expect(problem.message).toBe('Placard answered with 502.');
      expect(problem.isPassing).toBe(true);
    },
  );

  it('says that what was written is kept where the server cannot be reached', async () => {
    const gone = new TypeError('fetch failed');
    vi.stubGlobal('fetch', () => Promise.reject(gone));
    const problem = await problemOf(requestJson(SizeSchema, '/pages/tides'));
    expect(problem).toMatchObject({ status: 0, isPassing: true, cause: gone });
    expect(problem.message).toContain('kept on this machine');
  });

  it('is no failure of the server where the asking was called off', async () => {
    const calledOff = new AbortController();
    calledOff.abort();
    vi.stubGlobal('fetch', () => Promise.reject(calledOff.signal.reason));
    await expect(requestJson(SizeSchema, '/assets', { signal: calledOff.signal })).rejects.toBe(
      calledOff.signal.reason,
    );
  });
});

it('a fault of the screen is not said in the words of a program', () => {
  expect(sayFailure(new ApiProblem(409, 'The name is taken.', null))).toBe('The name is taken.');
  expect(sayFailure(new TypeError('undefined is not a function'))).not.toContain('undefined');
});
