import { describe, expect, it } from 'vitest';
import { trueShapeRows } from './rows.ts';

const rows = (aspects: readonly number[], width = 1000, wished = 200, gap = 10) =>
  trueShapeRows(aspects, width, wished, gap).map(({ from, to, height }) => [from, to, Math.round(height)]);

describe('rows of pictures in their own shapes', () => {
  it.each<readonly [string, readonly number[], readonly (readonly number[])[]]>([
    ['none of no picture', [], []],
    ['one that is far from full keeps the wished height', [1.5], [[0, 1, 200]]],
    ['a last one that is nearly full is made flush', [1.5, 1.5, 1], [[0, 3, 245]]],
    ['a full one is as high as its pictures leave it', [1.7, 1.7, 1.7], [[0, 3, 192]]],
    // Four would be 162 high and three 218: three are nearer to 200.
    [
      'one more picture goes to the next row where that is nearer',
      [1.5, 1.5, 1.5, 1.5, 1.5],
      [
        [0, 3, 218],
        [3, 5, 200],
      ],
    ],
    [
      'a panorama is a row of its own',
      [6, 1.5, 1.5],
      [
        [0, 1, 167],
        [1, 3, 200],
      ],
    ],
    ['and stands with one that is narrow', [1, 6], [[0, 2, 141]]],
    [
      'each is begun anew',
      [2.4, 2.4, 2.4, 2.4, 1],
      [
        [0, 2, 206],
        [2, 4, 206],
        [4, 5, 200],
      ],
    ],
  ])('%s', (_what, aspects, made) => {
    expect(rows(aspects)).toEqual(made);
  });

  it('leave out the gaps, and are at least a px high', () => {
    expect(rows([2.5, 2.5], 1000, 200, 0)).toEqual([[0, 2, 200]]);
    expect(rows([2.5, 2.5], 1000, 200, 100)).toEqual([[0, 2, 180]]);
    expect(rows([9000], 1000)).toEqual([[0, 1, 1]]);
  });
});
