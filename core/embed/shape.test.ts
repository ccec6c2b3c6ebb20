import { describe, expect, it } from 'vitest';
import { readShape, sayShape } from './shape.ts';

describe('a shape as it is typed', () => {
  it.each([
    ['16:9', { kind: 'ratio', across: 16, down: 9 }],
    [' 4 : 3 ', { kind: 'ratio', across: 4, down: 3 }],
    ['4/3', { kind: 'ratio', across: 4, down: 3 }],
    ['3 x 2', { kind: 'ratio', across: 3, down: 2 }],
    ['3×2', { kind: 'ratio', across: 3, down: 2 }],
    ['520', { kind: 'height', px: 520 }],
    ['520 px', { kind: 'height', px: 520 }],
    ['40', { kind: 'height', px: 40 }],
    ['4000', { kind: 'height', px: 4000 }],
    ['39', undefined],
    ['4001', undefined],
    ['0:9', undefined],
    ['16:', undefined],
    ['wide', undefined],
    ['50%', undefined],
    ['', undefined],
  ])('"%s" is %j', (text, shape) => {
    expect(readShape(text)).toEqual(shape);
  });

  it.each(['16 : 9', '520 px'])('"%s" is said as it was read', (text) => {
    const shape = readShape(text);
    expect(shape && sayShape(shape)).toBe(text);
  });
});
