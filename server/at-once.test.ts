import { describe, expect, it } from 'vitest';
import { eachAtMost } from './at-once.ts';

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
