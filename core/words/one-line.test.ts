import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { oneLine } from './one-line.ts';

describe('a line from elsewhere', () => {
  it.each([
    ['  The\n first \t boom ', 'The first boom'],
    ['saltmere\u202eelpmaxe.evil', 'saltmereelpmaxe.evil'],
    ['a\u2066b\u2069c\u200fd\u061ce', 'abcde'],
    ['bell\u0007 and\u0000nul', 'bell andnul'],
    ['नमस्ते', 'नमस्ते'],
    ['👩\u200d🌾 cuts', '👩\u200d🌾 cuts'],
  ])('%j is %j', (text, line) => {
    expect(oneLine(text)).toBe(line);
  });

  it('is at most as long as is wanted, and never half a letter', () => {
    expect(oneLine('reed '.repeat(100), 9)).toBe('reed reed');
    expect(oneLine('ab🐦', 3)).toBe('ab');
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.integer({ min: 1, max: 40 }), (text, most) => {
        const line = oneLine(text, most);
        expect(line.length).toBeLessThanOrEqual(most);
        expect(oneLine(line, most)).toBe(line);
      }),
    );
  });
});
