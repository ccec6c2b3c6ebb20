import { getEventListeners } from 'node:events';
import { describe, expect, it } from 'vitest';
import { eachAtMost, SharedWork } from './at-once.ts';

const tick = () => new Promise((resolve) => setTimeout(resolve, 1));

describe('working many items at once', () => {
  it('keeps to its limit and to the order', async () => {
    let running = 0;
    let most = 0;
    const begun: number[] = [];
    await eachAtMost(2, [1, 2, 3, 4, 5], async (item) => {
      begun.push(item);
      running += 1;
      most = Math.max(most, running);
      await tick();
      running -= 1;
    });
    expect(begun).toEqual([1, 2, 3, 4, 5]);
    expect(most).toBe(2);
  });

  it('begins nothing after a failure, and has waited for what was under way when it throws', async () => {
    const ended: number[] = [];
    const work = eachAtMost(2, [1, 2, 3, 4], async (item) => {
      await tick();
      if (item === 1) throw new Error('first');
      await tick();
      ended.push(item);
    });
    await expect(work).rejects.toThrow('first');
    expect(ended).toEqual([2]);
  });
});

describe('work that is shared', () => {
  it('is held on to by no signal once it is done, however long that lives', async () => {
    const server = new AbortController();
    const shared = new SharedWork<number>();
    const asked = [1, 1, 2].map((key) => shared.do(`${key}`, server.signal, async () => key));
    expect(getEventListeners(server.signal, 'abort')).toHaveLength(3);
    expect(await Promise.all(asked)).toEqual([1, 1, 2]);
    expect(getEventListeners(server.signal, 'abort')).toEqual([]);
  });

  it('ends when the last who waits is gone', async () => {
    const [one, other] = [new AbortController(), new AbortController()];
    const shared = new SharedWork<boolean>();
    const work = async (signal: AbortSignal) => {
      while (!signal.aborted) await tick();
      return true;
    };
    const asked = [one, other].map(({ signal }) => shared.do('same', signal, work));
    one.abort();
    await tick();
    const after = await Promise.race([asked[1], tick().then(() => 'goes on')]);
    expect(after).toBe('goes on');
    other.abort();
    expect(await asked[1]).toBe(true);
  });
});
