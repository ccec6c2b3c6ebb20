import { describe, expect, it } from 'vitest';
import { countKeyWords, readKeyWords, sayKeyWords, withKeyWords, withoutKeyWord } from './key-words.ts';

describe('key words', () => {
  it('are read from what is typed, each once', () => {
    expect(readKeyWords(' heron,  grey   heron;\nHERON, ,reed ')).toEqual(['heron', 'grey heron', 'reed']);
    expect(readKeyWords(' , ;')).toEqual([]);
  });

  it('are added after those that are there, in the spelling that is there', () => {
    expect(withKeyWords(['Reed'], ['reed', 'tide'])).toEqual(['Reed', 'tide']);
  });

  it('are taken off however they are spelt', () => {
    expect(withoutKeyWord(['Reed', 'tide', 'reed'], 'REED')).toEqual(['tide']);
  });

  it('are said as far as they can be looked over', () => {
    expect(sayKeyWords(['a', 'b'])).toBe('a, b');
    expect(sayKeyWords(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'])).toBe('a, b, c, d, e, f and 2 more');
  });

  it('are counted over pieces, once for each of them', () => {
    expect(countKeyWords([['tide', 'Tide'], ['reed', 'tide'], []])).toEqual([
      { word: 'tide', pieces: 2 },
      { word: 'reed', pieces: 1 },
    ]);
  });
});
