import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldWord, nearWord } from './near-word.ts';

const IN_USE = new Map(
  Object.entries({
    heron: 9,
    herons: 2,
    hermit: 1,
    boardwalk: 4,
    bittern: 6,
    bitten: 1,
    reed: 3,
    marsh: 2,
    saltmere: 5,
    cafe: 1,
  }),
);

describe('the word that was meant', () => {
  it.each([
    ['heorn', 'heron'],
    ['hero', 'heron'],
    ['heronn', 'heron'],
    ['haron', 'heron'],
    ['biterns', null],
    ['bitern', 'bittern'],
    ['bordwlak', 'boardwalk'],
    ['boradwalks', 'boardwalk'],
    ['saltmeer', 'saltmere'],
    ['Marhs', 'marsh'],
    ['Kafé', 'cafe'],
    // Too short, too far, a number, or right as it is.
    ['red', null],
    ['egret', null],
    ['reed2', null],
    ['reed', null],
  ])('by "%s" is %s', (typed, meant) => {
    expect(nearWord(typed, IN_USE)).toBe(meant);
  });

  it('is found over any one slip in it', () => {
    const letter = fc.constantFrom(...'abcdefghijklmnopqrstuvwxyz');
    fc.assert(
      fc.property(
        fc.constantFrom('bittern', 'boardwalk', 'saltmere'),
        fc.nat(6),
        letter,
        (word, at, slip) => {
          const typed = `${word.slice(0, at)}${slip}${word.slice(at + 1)}`;
          fc.pre(!IN_USE.has(typed));
          expect(nearWord(typed, new Map([[word, 1]]))).toBe(word);
        },
      ),
    );
  });

  it('is compared without accents and capitals', () => {
    expect(foldWord('Übergröße')).toBe('ubergroße');
  });
});
