// @vitest-environment jsdom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { uploadLimit } from './upload-limit.ts';

const file = (bytes: number) => Object.defineProperty(new File([], 'a.jpg'), 'size', { value: bytes });
const answering = (response: Response | Error) =>
  vi.spyOn(globalThis, 'fetch').mockImplementation(async () => {
    if (response instanceof Error) throw response;
    return response;
  });

afterEach(() => {
  vi.restoreAllMocks();
  queryClient.clear();
});

describe('the most that is taken of one file', () => {
  it('is what the server says, asked once', async () => {
    const asked = answering(new Response(null, { headers: { 'Tus-Max-Size': '50000000' } }));
    expect(await uploadLimit([file(30_000_000)])).toBe(50_000_000);
    expect(await uploadLimit([file(60_000_000)])).toBe(50_000_000);
    expect(asked).toHaveBeenCalledOnce();
    expect(asked.mock.calls[0]).toMatchObject(['/api/uploads', { method: 'OPTIONS' }]);
  });

  it('is not asked for where every file is small', async () => {
    const asked = answering(new Error('never'));
    expect(await uploadLimit([file(4_000_000), file(0)])).toBe(Number.POSITIVE_INFINITY);
    expect(asked).not.toHaveBeenCalled();
  });

  it.each([
    ['cannot be reached', new TypeError('offline')],
    ['answers without it', new Response(null)],
    ['refuses', new Response(null, { status: 401 })],
  ])('is left to the server where it %s, and asked for again', async (_what, response) => {
    const asked = answering(response);
    expect(await uploadLimit([file(30_000_000)])).toBe(Number.POSITIVE_INFINITY);
    await uploadLimit([file(30_000_000)]);
    expect(asked).toHaveBeenCalledTimes(2);
  });
});
