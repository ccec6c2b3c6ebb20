import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findAll, namesHowWell, replaceAll } from './find.ts';

const found = (text: string, sought: string) =>
  findAll(text, sought).map(({ from, to }) => text.slice(from, to));

describe('finding in a text', () => {
  it('finds each place once, without regard to case, accents and quotes', () => {
    expect(found('The heron. HERON! A hérons’ hide', 'heron')).toEqual(['heron', 'HERON', 'héron']);
    expect(found('the herons’ hide', "herons'")).toEqual(['herons’']);
    expect(found('aaaa', 'aa')).toEqual(['aa', 'aa']);
  });

  it('finds nothing where nothing is sought or is there', () => {
    expect(found('heron', '')).toEqual([]);
    expect(found('heron', 'herons')).toEqual([]);
  });

  it('keeps its place behind letters that grow or shrink in lower case', () => {
    expect(found('İİ 𝐇 ß heron', 'heron')).toEqual(['heron']);
  });

  it('finds any part of any text where it stands', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.string({ minLength: 1 }), fc.string(), (a, b, c) => {
        const spans = findAll(a + b + c, b);
        expect(spans.length).toBeGreaterThan(0);
        for (const { from, to } of spans) expect(to - from).toBe(b.length);
      }),
    );
  });
});

describe('naming something by what is typed of its name', () => {
  it.each([
    ['Begin a p', 'Begin a page', 1],
    ['page begin', 'Begin a page', 0.8],
    ['heron', 'Reed bed with hérons', 0.8],
    ['gin', 'Begin a page', 0.5],
    // Each letter stands somewhere in it, in this order; nobody means it.
    ['geese', 'Keys and cards the Reserve site', 0],
    ['begin heron', 'Begin a page', 0],
    ['', 'Begin a page', 1],
  ])('"%s" names "%s": %d', (typed, name, well) => {
    expect(namesHowWell(typed, name)).toBe(well);
  });
});

describe('words put in the place of others', () => {
  it.each([
    ['Reed, reed and REED', 'reed', 'sedge', 'Sedge, sedge and SEDGE'],
    ['the reed-bed', 'REED', 'rush', 'the rush-bed'],
    ['Bitterns boom', 'bitterns', '“they”', '“They” boom'],
    ['a.b.c', '.', '', 'abc'],
    ['cost: $1', '$1', '$& $$', 'cost: $& $$'],
    ['A reed', 'a', 'the', 'The reed'],
    ['nothing here', 'reed', 'sedge', 'nothing here'],
    ['the warden’s hut', "warden's", 'keeper’s', 'the keeper’s hut'],
  ])('%s, %s to %s', (text, sought, words, after) => {
    expect(replaceAll(text, sought, words)).toBe(after);
  });
});
