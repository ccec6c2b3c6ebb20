import { describe, expect, it } from 'vitest';
import { sizesAt } from './sizes-at.ts';

describe('sizes for another screen', () => {
  it.each([
    ['640px', 1, '640px'],
    ['640px', 3, 'calc(3 * 640px)'],
    [
      '(max-width: 680px) calc(100vw - 40px), 640px',
      2,
      '(max-width: 680px) calc(2 * calc(100vw - 40px)), calc(2 * 640px)',
    ],
    [
      '(min-width: 30em) and (max-width: 680px) min(46vw, 300px), 100vw',
      1.5,
      '(min-width: 30em) and (max-width: 680px) calc(1.5 * min(46vw, 300px)), calc(1.5 * 100vw)',
    ],
  ])('%s, %d times as sharp', (sizes, times, said) => {
    expect(sizesAt(sizes, times)).toBe(said);
  });
});
